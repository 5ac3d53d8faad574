import type { Schemas } from '@/api/client'

/** What the audit log notes, in words. */
export const ACTION_NAMES: Record<Schemas['AuditRow']['action'], string> = {
  sign_in: 'Signed in',
  sign_in_refused: 'Sign-in refused',
  sign_out: 'Signed out',
  sessions_ended: 'Sessions ended',
  password_changed: 'Password changed',
  code_set: 'One-time code set up',
  code_removed: 'One-time code removed',
  codes_required: 'Codes required',
  invited: 'Invited',
  reset_begun: 'New password offered',
  invitation_used: 'Link used',
  invitation_revoked: 'Link for joining taken back',
  person_changed: 'Person changed',
  formats_changed: 'Formats changed',
  shop_written: 'Shop changed',
  house_rules_written: 'House rules changed',
  key_made: 'Instrument key made',
  key_revoked: 'Instrument key taken back',
  link_made: 'Customer link made',
  link_revoked: 'Customer link taken back',
  exported: 'Taken out',
  overridden: 'Milder standing set',
  set_aside: 'Entry set aside',
  refused: 'Refused',
}
