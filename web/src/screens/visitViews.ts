import type { ViewName } from '@/features/visit/keyboard'

/** The views of a visit, each fetched when it is opened, or ahead of that once the first one stands. */
export const VIEW_FILES = {
  arrival: () => import('@/features/arrival/ArrivalView.vue'),
  walk: () => import('@/features/walk/WalkView.vue'),
  unit: () => import('@/features/unit/UnitView.vue'),
  flue: () => import('@/features/flue/FlueView.vue'),
  gas: () => import('@/features/gas/GasView.vue'),
  draft: () => import('@/features/draft/DraftView.vue'),
  air: () => import('@/features/air/AirView.vue'),
  string: () => import('@/features/string/StringView.vue'),
  exchanger: () => import('@/features/exchanger/ExchangerView.vue'),
  close: () => import('@/features/close/CloseView.vue'),
} satisfies Record<ViewName, () => Promise<unknown>>
