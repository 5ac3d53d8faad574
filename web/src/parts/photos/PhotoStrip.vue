<script setup lang="ts">
import { PICTURES } from '@/ui/pictures'
import { NModal } from 'naive-ui'
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { useOutbox } from '@/outbox/useOutbox'
import PhotoMarks from './PhotoMarks.vue'

const props = defineProps<{ page: Schemas['VisitPage']; station: string }>()
const outbox = useOutbox()
const open = ref('')
const shown = computed(() =>
  props.page.photos.filter((photo) => !props.station || photo.station === props.station),
)
const photo = computed(() => props.page.photos.find((row) => row.id === open.value))

/** What of this place is on its way, or was refused: said where it was taken. */
const going = computed(() =>
  outbox.mine.filter(
    (item) =>
      item.kind === 'photo' && item.visit === props.page.id && item.station === props.station,
  ),
)
const refused = computed(() => going.value.filter((item) => item.refused))
/** Photos and marks are kept on the tablet first and sent as lines are; what waits stands above the tape. */
function take(event: Event): void {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  field.value = ''
  if (file) outbox.add(props.page.id, { kind: 'photo', file, station: props.station })
}
function keep(marks: Schemas['MarkIn'][]): void {
  outbox.add(props.page.id, { kind: 'marks', photo: open.value, marks })
  open.value = ''
}
</script>

<template>
  <section class="strip">
    <h2>Photos</h2>
    <label v-if="page.writable" class="btn">
      Take or choose one
      <input type="file" :accept="PICTURES" capture="environment" class="sr" @change="take" />
    </label>
    <span v-if="going.length > refused.length" class="muted" role="status">
      {{ going.length - refused.length }} on this tablet, to send
    </span>
    <p v-for="item in refused" :key="item.id" class="trouble" role="alert">
      {{ item.refused?.why }}
      <button class="btn" @click="outbox.remove([item.id])">Discard it</button>
    </p>
    <p v-if="!shown.length" class="muted">
      None yet. JPEG, PNG, WebP or HEIC, up to 20 MB; where it was taken is left out of the file
      unless the house keeps it.
    </p>
    <div class="all">
      <button v-for="row in shown" :key="row.id" class="one" @click="open = row.id">
        <img
          :src="row.small"
          :alt="row.caption || `photo of the ${row.station || 'visit'}`"
          loading="lazy"
        />
        <small v-if="row.marks.length">{{ row.marks.length }} marked</small>
      </button>
    </div>
    <NModal
      :show="!!photo"
      preset="card"
      style="max-width: 900px"
      title="Photo"
      @update:show="open = ''"
    >
      <PhotoMarks
        v-if="photo"
        :key="photo.id"
        :photo="photo"
        :writable="page.writable"
        @keep="keep"
      />
    </NModal>
  </section>
</template>

<style scoped>
.strip {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  background: var(--plate);
  border: 1.5px solid var(--line);
  border-radius: 8px;
  padding: 12px 16px;
}
h2 {
  font-size: 18px;
  flex-basis: 100%;
}
label.btn {
  display: inline-flex;
  align-items: center;
  cursor: pointer;
}
.trouble {
  color: var(--out);
  font-weight: 500;
  flex-basis: 100%;
}
.all {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  flex-basis: 100%;
}
.one {
  position: relative;
  padding: 0;
  border: 1.5px solid var(--line);
  border-radius: 7px;
  overflow: hidden;
  background: none;
}
.one img {
  display: block;
  height: 132px;
}
.one small {
  position: absolute;
  left: 6px;
  bottom: 6px;
  padding: 1px 7px;
  border-radius: 4px;
  background: var(--bar);
  color: var(--bar-ink);
  font-size: 14px;
}
</style>
