import { call, http, upload, within, type Schemas } from './client'

/** The query keys of the whole page. */
export const keys = {
  me: ['me'] as const,
  round: ['round'] as const,
  day: (day: string) => ['round', day] as const,
  visit: (id: number) => ['visit', id] as const,
  site: (id: number) => ['site', id] as const,
  arrival: (id: number, version: number) => ['visit', id, 'arrival', version] as const,
  walks: (id: number, version: number) => ['visit', id, 'walks', version] as const,
  searchHistory: (id: number, version: number) => ['search history', id, version] as const,
  string: (id: number, version: number, state: string) =>
    ['visit', id, 'string', version, state] as const,
  captures: (id: number) => ['visit', id, 'captures'] as const,
  workings: (id: number, version: number) => ['visit', id, 'workings', version] as const,
  meter: (id: number, state: string, a: string, b: string) =>
    ['visit', id, 'meter', state, a, b] as const,
  log: (id: string) => ['log', id] as const,
  closing: (id: number, version: number) => ['visit', id, 'closing', version] as const,
  preview: (id: number, version: number, kind: string) =>
    ['visit', id, 'preview', version, kind] as const,
  exchanger: (id: number, version: number) => ['visit', id, 'exchanger', version] as const,
  unit: (id: number) => ['unit', id] as const,
  shared: (token: string) => ['shared', token] as const,
  sealed: (head: string) => ['sealed', head] as const,
  house: ['house-rules'] as const,
  words: (id: number) => ['visit', id, 'words'] as const,
  people: ['people'] as const,
  audit: (action: string, before: number | null) => ['people', 'audit', action, before] as const,
  sessions: ['sessions'] as const,
  invitation: (token: string) => ['invitation', token] as const,
  documents: (sort: string) => ['shop', sort] as const,
}

const READ_BACK_MS = 5000
const visitPath = (visit_id: number) => ({ params: { path: { visit_id } } })
const logPath = (log_id: string) => ({ params: { path: { log_id } } })

export const getSite = (id: number) =>
  call<Schemas['SiteOut']>(http.GET('/api/sites/{site_id}', { params: { path: { site_id: id } } }))
export const getWords = (id: number) =>
  call<Schemas['Vocabulary']>(http.GET('/api/visits/{visit_id}/vocabulary', visitPath(id)))
export const getVisit = (id: number) =>
  call<Schemas['VisitPage']>(http.GET('/api/visits/{visit_id}', visitPath(id)))
export const getVersion = (id: number) =>
  call<number>(http.GET('/api/visits/{visit_id}/version', visitPath(id)))
export const getWalks = (id: number) =>
  call<Schemas['WalksOut']>(http.GET('/api/visits/{visit_id}/walks', visitPath(id)))
export const getArrival = (id: number) =>
  call<Schemas['ArrivalOut']>(http.GET('/api/visits/{visit_id}/arrival', visitPath(id)))
export const changeCircuit = (id: number, body: Schemas['CircuitChangeIn']) =>
  call<Schemas['StringOut']>(
    http.POST('/api/visits/{visit_id}/circuit', { ...visitPath(id), body }),
  )
export const keepCircuitForModel = (id: number) =>
  call<Schemas['StringOut']>(http.POST('/api/visits/{visit_id}/circuit/for-model', visitPath(id)))
export const getSearchHistory = (id: number) =>
  call<Schemas['SearchStepOut'][]>(http.GET('/api/visits/{visit_id}/search-history', visitPath(id)))
export const getString = (id: number, state: string) =>
  call<Schemas['StringOut']>(
    http.GET('/api/visits/{visit_id}/string', {
      params: { path: { visit_id: id }, query: { state } },
    }),
  )
export const getWorkings = (id: number) =>
  call<Schemas['WorkingsOut']>(http.GET('/api/visits/{visit_id}/workings', visitPath(id)))
export const getCaptures = (id: number) =>
  call<Schemas['CaptureOut'][]>(http.GET('/api/visits/{visit_id}/captures', visitPath(id)))
export const startCapture = (id: number, body: Schemas['CaptureIn']) =>
  call<Schemas['CaptureOut']>(
    http.POST('/api/visits/{visit_id}/captures', { ...visitPath(id), body }),
  )
const capturePath = (capture_id: string) => ({ params: { path: { capture_id } } })
export const endCapture = (id: string) =>
  call<Schemas['CaptureOut']>(http.POST('/api/captures/{capture_id}/end', capturePath(id)))
export const getTraces = (id: string, start_s?: number) =>
  call<Schemas['TracesOut']>(
    http.GET('/api/captures/{capture_id}/traces', {
      params: { path: { capture_id: id }, query: { start_s: start_s ?? null, end_s: null } },
    }),
  )
export const writeDips = (id: string, body: Schemas['DipsIn']) =>
  call<Schemas['VisitPage']>(
    http.POST('/api/captures/{capture_id}/dips', { params: { path: { capture_id: id } }, body }),
  )
export const getDips = (id: string, quantity: string) =>
  call<Schemas['DipsOut']>(
    http.GET('/api/captures/{capture_id}/dips', {
      params: { path: { capture_id: id }, query: { quantity, set_point: null } },
    }),
  )
export const getTraceReading = (id: string) =>
  call<Schemas['TraceReadingOut']>(http.GET('/api/captures/{capture_id}/reading', capturePath(id)))
export const markEvent = (id: string, body: Schemas['EventIn']) =>
  call<Schemas['TraceReadingOut']>(
    http.POST('/api/captures/{capture_id}/events', { ...capturePath(id), body }),
  )
export const writeStep = (id: string, body: Schemas['StepIn']) =>
  call<Schemas['VisitPage']>(
    http.POST('/api/captures/{capture_id}/step', { ...capturePath(id), body }),
  )
export const writeCaptureMeans = (id: string, body: Schemas['WindowMeansIn']) =>
  call<Schemas['VisitPage']>(
    http.POST('/api/captures/{capture_id}/means', { ...capturePath(id), body }),
  )
export const getMeter = (id: number, state: string, a: string, b: string) =>
  call<Schemas['MeterOut'] | null>(
    http.GET('/api/visits/{visit_id}/meter', {
      params: { path: { visit_id: id }, query: { state, a, b } },
    }),
  )
export const readBack = (id: number, body: Schemas['ReadBackIn'], signal?: AbortSignal) =>
  call<Schemas['ReadBack']>(
    http.POST('/api/visits/{visit_id}/read-back', {
      ...visitPath(id),
      body,
      signal,
      fetch: within(READ_BACK_MS),
    }),
  )
/** `patience`: how long the answer may take, ms. */
export const writeLine = (id: number, body: Schemas['LineIn'], patience: number) =>
  call<Schemas['VisitPage']>(
    http.POST('/api/visits/{visit_id}/lines', { ...visitPath(id), body, fetch: within(patience) }),
  )
/** What is worked with today; readings from then on are noted with it. */
export const takeInHand = (id: number, instruments: number[]) =>
  call<Schemas['VisitPage']>(
    http.PUT('/api/visits/{visit_id}/in-hand', { ...visitPath(id), body: { instruments } }),
  )
export const correct = (id: number, body: Schemas['CorrectionIn'], patience: number) =>
  call<Schemas['VisitPage']>(
    http.POST('/api/visits/{visit_id}/corrections', {
      ...visitPath(id),
      body,
      fetch: within(patience),
    }),
  )
export const closeVisit = (id: number, body: Schemas['CloseIn']) =>
  call<Schemas['VisitPage']>(http.POST('/api/visits/{visit_id}/close', { ...visitPath(id), body }))
export const amendVisit = (id: number, body: Schemas['AmendIn']) =>
  call<Schemas['VisitPage']>(
    http.POST('/api/visits/{visit_id}/amendments', { ...visitPath(id), body }),
  )
export const judgeByNewest = (id: number) =>
  call<Schemas['VisitPage']>(http.POST('/api/visits/{visit_id}/newest', visitPath(id)))
export type Sort = Schemas['ShopList']['sort']
export const getDocuments = (sort: Sort) =>
  call<Schemas['ShopList']>(http.GET('/api/shop/{sort}', { params: { path: { sort } } }))
export const getDocument = (sort: Sort, key: string) =>
  call<Record<string, unknown>>(
    http.GET('/api/shop/{sort}/{key}', { params: { path: { sort, key } } }),
  )
export const keepDocument = (sort: Sort, document: Record<string, unknown>, reason: string) =>
  call<Schemas['ShopList']>(
    http.PUT('/api/shop/{sort}', { params: { path: { sort } }, body: { document, reason } }),
  )
export const checkCircuit = (body: Schemas['CircuitIn']) =>
  call<Schemas['CircuitCheck']>(http.POST('/api/shop/circuit/check', { body }))
export const checkWalk = (document: object) =>
  call<Schemas['WalkCheck']>(
    http.POST('/api/shop/walk/check', {
      body: { document: document as Record<string, unknown>, reason: '' },
    }),
  )
export const checkKind = (document: Record<string, unknown>) =>
  call<Schemas['KindCheck']>(http.POST('/api/shop/kind/check', { body: { document, reason: '' } }))
export const getModelForm = (key: string) =>
  call<Schemas['ModelCheck']>(http.GET('/api/shop/model/{key}/form', { params: { path: { key } } }))
export const checkModel = (body: Schemas['ModelIn']) =>
  call<Schemas['ModelCheck']>(http.POST('/api/shop/model/check', { body }))
export const keepModel = (fields: Schemas['ModelFields'], reason: string) =>
  call<Schemas['ShopList']>(http.PUT('/api/shop/model/form', { body: { fields, reason } }))
export const getLog = (id: string) =>
  call<Schemas['LogPage']>(http.GET('/api/logs/{log_id}', logPath(id)))
export const answerLog = (id: string, body: Schemas['AnswerIn']) =>
  call<Schemas['LogPage']>(http.POST('/api/logs/{log_id}/answers', { ...logPath(id), body }))
export const mapLog = (id: string, body: Schemas['MappingIn']) =>
  call<Schemas['LogPage']>(http.POST('/api/logs/{log_id}/mapping', { ...logPath(id), body }))
export const windowMeans = (id: string, body: Schemas['WindowIn']) =>
  call<Schemas['MeanOut'][]>(http.POST('/api/logs/{log_id}/window', { ...logPath(id), body }))
export const writeMeans = (id: string, body: Schemas['WriteMeansIn']) =>
  call<Schemas['VisitPage']>(http.POST('/api/logs/{log_id}/means', { ...logPath(id), body }))

export const sendLog = (
  visit: number,
  file: File,
  instrument: number | null,
  name: string,
  onProgress: (share: number) => void,
) =>
  upload<Schemas['LogPage']>(
    `/api/visits/${visit}/logs`,
    file,
    { upload: name, ...(instrument === null ? {} : { instrument: String(instrument) }) },
    onProgress,
  )
/** How much of a log that was sent is read, 0 to 1; null where none of it is read just now. */
export const getLogShare = (upload: string) =>
  call<number | null>(http.GET('/api/log-shares/{upload}', { params: { path: { upload } } }))
export const sendPhoto = (
  visit: number,
  file: File,
  fields: { id: string; at: string; station: string },
) => upload<Schemas['VisitPage']>(`/api/visits/${visit}/photos`, file, fields, () => undefined)
export const sendBundle = (visit: number, file: File, onProgress: (share: number) => void) =>
  upload<Schemas['VisitPage']>(`/api/visits/${visit}/bundle`, file, {}, onProgress)
export const uploadSamples = (visit: number, file: File, instrument: number) =>
  upload<Schemas['CaptureOut']>(
    `/api/visits/${visit}/captures/csv`,
    file,
    { instrument: String(instrument) },
    () => undefined,
  )

export const getClosing = (id: number) =>
  call<Schemas['ClosingOut']>(http.GET('/api/visits/{visit_id}/closing', visitPath(id)))
export const getPreview = (id: number, kind: 'customer' | 'tag' | 'sheet') =>
  call<Schemas['PreviewOut']>(
    http.GET('/api/visits/{visit_id}/preview/{kind}', {
      params: { path: { visit_id: id, kind } },
    }),
  )
export const getExchanger = (id: number) =>
  call<Schemas['ExchangerOut']>(http.GET('/api/visits/{visit_id}/exchanger', visitPath(id)))
export const markPhoto = (id: string, marks: Schemas['MarkIn'][], patience: number) =>
  call<Schemas['VisitPage']>(
    http.PUT('/api/photos/{photo_id}/marks', {
      params: { path: { photo_id: id } },
      body: { marks },
      fetch: within(patience),
    }),
  )
export const getUnit = (id: number) =>
  call<Schemas['UnitRecord']>(
    http.GET('/api/units/{unit_id}', { params: { path: { unit_id: id } } }),
  )
export const shareUnit = (id: number, days: number) =>
  call<Schemas['LinkOut']>(
    http.POST('/api/units/{unit_id}/links', { params: { path: { unit_id: id } }, body: { days } }),
  )
export const revokeLink = (id: string) =>
  call<Schemas['LinkOut']>(
    http.POST('/api/links/{link_id}/revoke', { params: { path: { link_id: id } } }),
  )
export const getShared = (token: string) =>
  call<Schemas['SharedOut']>(http.GET('/api/shared/{token}', { params: { path: { token } } }))
export const getSealed = (head: string) =>
  call<Schemas['SealedOut']>(http.GET('/api/check/{head}', { params: { path: { head } } }))
export const checkBundle = (file: File) =>
  upload<Schemas['CheckedOut']>('/api/check', file, {}, () => undefined)
export const getHouse = () => call<Schemas['HouseRulesOut']>(http.GET('/api/house-rules'))
export const tryHouse = (rules: Record<string, unknown>) =>
  call<Schemas['DryRunOut']>(http.POST('/api/house-rules/try', { body: { rules, reason: '' } }))
export const keepHouse = (rules: Record<string, unknown>, reason: string) =>
  call<Schemas['HouseRulesOut']>(http.PUT('/api/house-rules', { body: { rules, reason } }))
