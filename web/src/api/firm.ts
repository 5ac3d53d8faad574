import { call, http, upload, type Schemas } from './client'

/* What the firm keeps, its days, its search, its lists. */

export type CardSort = 'site' | 'contact' | 'unit' | 'part' | 'instrument' | 'person' | 'firm'

export const firmKeys = {
  sorts: ['cards'] as const,
  form: (sort: string) => ['cards', sort, 'form'] as const,
  list: (sort: string, asked: object) => ['cards', sort, 'list', asked] as const,
  card: (sort: string, id: number) => ['cards', sort, id] as const,
  found: (q: string) => ['search', q] as const,
  board: (first: string, days: number) => ['board', first, days] as const,
  boards: ['board'] as const,
  door: (site: number) => ['door', site] as const,
  imports: ['imports'] as const,
  list_of: (id: string) => ['imports', id] as const,
  rows: (id: string, status: string, page: number) => ['imports', id, status, page] as const,
  work: (id: string) => ['work', id] as const,
}

const card = (sort: string, card_id: number) => ({ params: { path: { sort, card_id } } })
const list = (import_id: string) => ({ params: { path: { import_id } } })

export const getDay = (day: string | null) =>
  call<Schemas['Round']>(http.GET('/api/round', { params: { query: day ? { day } : {} } }))
export const getBoard = (first: string, days: number) =>
  call<Schemas['Board']>(
    http.GET('/api/board', { params: { query: first ? { first, days } : { days } } }),
  )
/** What is not said of a plan: it goes to whoever was last there, and nothing is to be fitted. */
const PLAN: Omit<Schemas['PlanIn'], 'reason' | 'day'> = {
  complaint: '',
  whose: 'last there',
  since: '',
  there: '',
  task: '',
  parts: [],
}
export const planVisit = (
  unit: number,
  plan: Pick<Schemas['PlanIn'], 'reason' | 'day'> & Partial<Schemas['PlanIn']>,
) =>
  call<Schemas['PlannedOut']>(
    http.POST('/api/units/{unit_id}/visits', {
      params: { path: { unit_id: unit } },
      body: { ...PLAN, ...plan },
    }),
  )
export const changePlan = (visit_id: number, body: Schemas['PlanChangeIn']) =>
  call<Schemas['BoardVisit']>(
    http.PUT('/api/visits/{visit_id}/plan', { params: { path: { visit_id } }, body }),
  )
export const cancelVisit = (visit_id: number, why: string) =>
  call<Schemas['BoardVisit']>(
    http.POST('/api/visits/{visit_id}/cancel', { params: { path: { visit_id } }, body: { why } }),
  )
export const find = (q: string) =>
  call<Schemas['FoundOut'][]>(http.GET('/api/search', { params: { query: { q } } }))

export const getSorts = () => call<Schemas['SortOut'][]>(http.GET('/api/cards'))
export const getForm = (sort: string) =>
  call<Schemas['SortOut']>(http.GET('/api/cards/{sort}/form', { params: { path: { sort } } }))
export interface Asked {
  q?: string
  page?: number
  retired?: boolean
  site?: number
}
export const getCards = (sort: string, query: Asked) =>
  call<Schemas['CardList']>(http.GET('/api/cards/{sort}', { params: { path: { sort }, query } }))
export const getCard = (sort: string, id: number) =>
  call<Schemas['CardOut']>(http.GET('/api/cards/{sort}/{card_id}', card(sort, id)))
export const makeCard = (sort: string, body: Schemas['CardIn']) =>
  call<Schemas['CardOut']>(http.POST('/api/cards/{sort}', { params: { path: { sort } }, body }))
export const changeCard = (sort: string, id: number, body: Schemas['CardChangeIn']) =>
  call<Schemas['CardOut']>(http.PUT('/api/cards/{sort}/{card_id}', { ...card(sort, id), body }))
export const retireCard = (sort: string, id: number, body: Schemas['RetireIn']) =>
  call<Schemas['CardOut']>(
    http.POST('/api/cards/{sort}/{card_id}/retire', { ...card(sort, id), body }),
  )
export const mergeCard = (sort: string, id: number, body: Schemas['MergeIn']) =>
  call<Schemas['CardOut']>(
    http.POST('/api/cards/{sort}/{card_id}/merge', { ...card(sort, id), body }),
  )
export const undoMerge = (merge_id: number) =>
  call<Schemas['CardOut']>(
    http.POST('/api/merges/{merge_id}/undo', { params: { path: { merge_id } } }),
  )

export const getDoor = (site_id: number) =>
  call<Schemas['DoorOut']>(http.GET('/api/sites/{site_id}/door', { params: { path: { site_id } } }))
export const makeAtDoor = (body: Schemas['DoorIn']) =>
  call<Schemas['CardOut']>(http.POST('/api/door/units', { body }))
export const sendPlatePhoto = (unit: number, file: File, id: string) =>
  upload<Schemas['CardOut']>(`/api/units/${unit}/plate-photos`, file, { id }, () => undefined)
export const readPlate = (file: File) =>
  upload<Schemas['PlateRead']>('/api/plates/read', file, {}, () => undefined)

export const getImports = () => call<Schemas['ImportOut'][]>(http.GET('/api/imports'))
export const bringList = (sort: string, file: File, told: (share: number) => void) =>
  upload<Schemas['ImportOut']>('/api/imports', file, { sort }, told)
export const getImport = (id: string) =>
  call<Schemas['ImportOut']>(http.GET('/api/imports/{import_id}', list(id)))
export const lookThrough = (id: string, body: Schemas['ColumnsIn']) =>
  call<Schemas['WorkOut']>(http.POST('/api/imports/{import_id}/look', { ...list(id), body }))
export const takeIn = (id: string, work: string) =>
  call<Schemas['WorkOut']>(
    http.POST('/api/imports/{import_id}/take', { ...list(id), body: { work } }),
  )
export const takeBack = (id: string, work: string) =>
  call<Schemas['WorkOut']>(
    http.POST('/api/imports/{import_id}/undo', { ...list(id), body: { work } }),
  )
export const getRows = (import_id: string, status: string, page: number) =>
  call<Schemas['ImportRows']>(
    http.GET('/api/imports/{import_id}/rows', {
      params: { path: { import_id }, query: { status, page } },
    }),
  )
export const chooseRow = (import_id: string, number: number, choice: string) =>
  call<Schemas['ImportRowOut']>(
    http.PUT('/api/imports/{import_id}/rows/{number}', {
      params: { path: { import_id, number } },
      body: { choice },
    }),
  )
export const getWork = (work_id: string) =>
  call<Schemas['WorkOut']>(http.GET('/api/work/{work_id}', { params: { path: { work_id } } }))
export const stopWork = (work_id: string) =>
  call<Schemas['WorkOut']>(http.POST('/api/work/{work_id}/stop', { params: { path: { work_id } } }))
