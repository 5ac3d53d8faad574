import { ref, type Ref } from 'vue'
import { useBar } from '@/parts/desk/bar'
import type { ListName } from './PickList.vue'

interface Doings {
  write: (line: string) => void
  photo: (file: File) => void
}

export interface UsePickingReturn {
  /** The list that is open; null for none. */
  list: Ref<ListName | null>
  /** The part that it opens at; "" for all of them. */
  part: Ref<string>
  open: (name: ListName, part?: string) => void
  close: () => void
  begin: (line: string) => void
  write: (line: string) => void
  photo: (file: File, station: string) => void
}

/** The lists of what was found and done: what is picked whole is written, the rest is begun in the bar. */
export function usePicking(doings: Doings): UsePickingReturn {
  const bar = useBar()
  const list = ref<ListName | null>(null)
  const part = ref('')
  const close = () => (list.value = null)
  return {
    list,
    part,
    open: (name, at = '') => ([part.value, list.value] = [at, name]),
    close,
    begin: (line) => (close(), bar.begin(line)),
    write: (line) => (close(), doings.write(line)),
    photo: (file, station) => ((bar.station = station), doings.photo(file)),
  }
}
