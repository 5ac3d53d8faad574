<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, reactive, ref, shallowRef } from 'vue'
import { ApiError, type Schemas } from '@/api/client'
import { firmKeys, getDoor, makeAtDoor, readPlate, sendPlatePhoto } from '@/api/firm'
import Card from '@/ui/Card.vue'
import ChipRow from '@/ui/ChipRow.vue'
import Field from '@/ui/Field.vue'
import FileButton from '@/ui/FileButton.vue'
import { PICTURES } from '@/ui/pictures'
import PlatePicture from './PlatePicture.vue'

/** A unit at the door: like one beside it, of a model, or of a kind whose plate is read later. Few touches, one hand. */
const props = defineProps<{ site: number }>()
const emit = defineEmits<{ made: [unit: number] }>()
const { data: door, error } = useQuery<Schemas['DoorOut'], ApiError>({
  queryKey: computed(() => firmKeys.door(props.site)),
  queryFn: () => getDoor(props.site),
})
const WAYS = [
  { key: 'model', name: 'a model we know' },
  { key: 'kind', name: 'plate not read yet' },
]
const STAGES = [
  { key: 'only', name: 'one stage' },
  { key: 'two', name: 'two stages' },
]
const MOST_MODELS = 12
const id = crypto.randomUUID()
const photoId = crypto.randomUUID()
const way = ref('model')
const unit = reactive({ label: '', place: '', serial: '', model: '', installed_year: '' })
const kind = reactive<Schemas['KindIn']>({ kind: '', fuel: 'NG_H', stages: 'only' })
const more = ref('')
const photo = shallowRef<File | null>(null)
const address = ref('')
const read = ref<Schemas['PlateRead'] | null>(null)
const bad = ref<Record<string, string>>({})
const trouble = ref('')
const busy = ref(false)
const asOptions = (named: Record<string, string>) =>
  Object.entries(named).map(([key, name]) => ({ key, name }))
const models = computed(() =>
  (door.value?.models ?? [])
    .filter((one) => one.name.toLowerCase().includes(more.value.toLowerCase()))
    .slice(0, MOST_MODELS)
    .map(({ key, name }) => ({ key, name })),
)
const ready = computed(
  () => unit.label && unit.place && (way.value === 'model' ? unit.model : kind.kind),
)

function like(sister: Schemas['SisterOut']): void {
  way.value = 'model'
  unit.model = String(sister.values['model'] ?? '')
  unit.place ||= String(sister.values['place'] ?? '')
}
async function take(file: File): Promise<void> {
  photo.value = file
  URL.revokeObjectURL(address.value)
  address.value = URL.createObjectURL(file)
  if (door.value?.reads_plates) read.value = await readPlate(file).catch(() => null)
}
/** What was read off the picture is taken one by one, by whoever sees the picture beside it. */
function confirm(field: string, value: string): void {
  if (field === 'model') way.value = 'model'
  Object.assign(unit, { [field]: value })
}

async function make(): Promise<void> {
  busy.value = true
  try {
    const values = { ...unit, site: props.site, ...(way.value === 'kind' ? { model: '' } : {}) }
    const of_kind = way.value === 'kind' ? { ...kind } : null
    const made = await makeAtDoor({ id, values, of_kind })
    if (photo.value) await sendPlatePhoto(made.id, photo.value, photoId)
    emit('made', made.id)
  } catch (caught) {
    if (!(caught instanceof ApiError)) throw caught
    bad.value = caught.fields
    trouble.value = caught.message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <p v-if="error" class="bad" role="alert">{{ error.message }}</p>
  <form v-if="door" @submit.prevent="make">
    <Card v-if="door.sisters.length" title="Like one that stands here">
      <div class="chips">
        <button
          v-for="one in door.sisters"
          :key="one.id"
          type="button"
          class="btn"
          @click="like(one)"
        >
          {{ one.name }}
        </button>
      </div>
    </Card>
    <Card title="What it is">
      <ChipRow label="It is" :options="WAYS" :chosen="way" @choose="(key) => (way = key)" />
      <template v-if="way === 'model'">
        <Field
          v-if="door.models.length > MOST_MODELS"
          v-model="more"
          label="Some letters of its model"
          name="door_more"
        />
        <ChipRow
          label="Model"
          :options="models"
          :chosen="unit.model"
          @choose="(key) => (unit.model = key)"
        />
        <p v-if="bad['model']" class="bad">{{ bad['model'] }}</p>
      </template>
      <template v-else>
        <ChipRow
          label="Kind"
          :options="asOptions(door.kinds)"
          :chosen="kind.kind"
          @choose="(key) => (kind.kind = key)"
        />
        <ChipRow
          label="Fuel"
          :options="asOptions(door.fuels)"
          :chosen="kind.fuel"
          @choose="(key) => (kind.fuel = key)"
        />
        <ChipRow
          label="Stages"
          :options="STAGES"
          :chosen="kind.stages"
          @choose="(key) => (kind.stages = key === 'two' ? 'two' : 'only')"
        />
      </template>
    </Card>
    <Card title="Its tag and place">
      <ChipRow
        label="Tag"
        :options="door.free_labels.map((key) => ({ key, name: key }))"
        :chosen="unit.label"
        @choose="(key) => (unit.label = key)"
      />
      <Field v-model="unit.label" label="Tag" name="door_label" :maxlength="20" />
      <p v-if="bad['label']" class="bad">{{ bad['label'] }}</p>
      <Field v-model="unit.place" label="Where it stands" name="door_place" :maxlength="120" />
      <p v-if="bad['place']" class="bad">{{ bad['place'] }}</p>
    </Card>
    <Card title="Its plate" aside="can be read later">
      <FileButton :accept="PICTURES" class="btn" @file="take">
        {{ photo ? 'Another picture' : 'Take its picture' }}
      </FileButton>
      <PlatePicture
        v-if="address"
        :address="address"
        :read="read"
        :models="door.models"
        @confirm="confirm"
      />
      <Field v-model="unit.serial" label="Serial number" name="door_serial" :maxlength="60" />
      <p v-if="bad['serial']" class="bad">{{ bad['serial'] }}</p>
    </Card>
    <p v-if="trouble" class="bad" role="alert">{{ trouble }}</p>
    <button class="btn strong" :disabled="busy || !ready">Make this unit</button>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 12px;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.bad {
  color: var(--out);
  font-weight: 600;
}
</style>
