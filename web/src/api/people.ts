import { call, http, type Schemas } from './client'

/* Calls about people: the session, what is one's own, and who belongs to the firm. */

export const getMe = () => call<Schemas['Me']>(http.GET('/api/session'))
export const signIn = (body: Schemas['SignIn']) =>
  call<Schemas['Me']>(http.POST('/api/session', { body }))
export const signOut = () => call<unknown>(http.DELETE('/api/session'))
export const prefer = (body: Schemas['Preferences']) =>
  call<Schemas['Me']>(http.PATCH('/api/session', { body }))
export const writeFormats = (body: Schemas['FormatsIn']) =>
  call<Schemas['Me']>(http.PUT('/api/firm/formats', { body }))
export const changePassword = (body: Schemas['PasswordIn']) =>
  call<Schemas['Me']>(http.PUT('/api/session/password', { body }))
export const beginCode = () => call<Schemas['CodeSetUp']>(http.POST('/api/session/code'))
export const confirmCode = (body: Schemas['CodeIn']) =>
  call<Schemas['Me']>(http.PUT('/api/session/code', { body }))
export const removeCode = (body: Schemas['PasswordKept']) =>
  call<Schemas['Me']>(http.POST('/api/session/code/remove', { body }))
export const getSessions = () => call<Schemas['SessionOut'][]>(http.GET('/api/session/all'))
export const endOtherSessions = () => call<Schemas['SessionOut'][]>(http.DELETE('/api/session/all'))
export const endSession = (session_id: string) =>
  call<Schemas['SessionOut'][]>(
    http.DELETE('/api/session/all/{session_id}', { params: { path: { session_id } } }),
  )
export const getPeople = () => call<Schemas['MembersOut']>(http.GET('/api/people'))
export const invitePerson = (body: Schemas['InvitationIn']) =>
  call<Schemas['InvitedOut']>(http.POST('/api/people/invitations', { body }))
export const revokeInvitation = (invitation_id: number) =>
  call<Schemas['MembersOut']>(
    http.DELETE('/api/people/invitations/{invitation_id}', { params: { path: { invitation_id } } }),
  )
export const resetPassword = (person_id: number) =>
  call<Schemas['InvitedOut']>(
    http.POST('/api/people/{person_id}/reset', { params: { path: { person_id } } }),
  )
export const changePerson = (person_id: number, body: Schemas['MemberIn']) =>
  call<Schemas['MembersOut']>(
    http.PATCH('/api/people/{person_id}', { params: { path: { person_id } }, body }),
  )
export const requireCodes = (required: boolean) =>
  call<Schemas['MembersOut']>(http.PUT('/api/firm/codes-required', { body: { required } }))
export const getInvitation = (token: string) =>
  call<Schemas['OpenedOut']>(http.GET('/api/invitations/{token}', { params: { path: { token } } }))
export const acceptInvitation = (token: string, password: string) =>
  call<Schemas['Me']>(
    http.POST('/api/invitations/{token}', { params: { path: { token } }, body: { password } }),
  )
export const getAudit = (action: string, before: number | null) =>
  call<Schemas['AuditOut']>(
    http.GET('/api/audit', { params: { query: { action, name: '', before } } }),
  )
