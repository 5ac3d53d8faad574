<script setup lang="ts">
import { computed } from 'vue'
import type { BarAction } from '@/parts/desk/bar'

const props = defineProps<{
  likely: string[]
  twoStage: boolean
  letters: boolean
  actions: BarAction[]
}>()
const emit = defineEmits<{
  press: [key: string]
  begin: [starter: string]
  list: [name: 'done' | 'found' | 'jumpers']
}>()
const starters = computed(() => [...new Set(props.likely)].slice(0, 8))
const digits = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0', '-']
const words = computed(() => [
  ' co ',
  ' t ',
  ' co2 ',
  props.twoStage ? ' lo' : ' air ',
  props.twoStage ? ' hi' : ' C',
  '/',
])
</script>

<template>
  <div class="pad" @mousedown.prevent>
    <div class="likely" aria-label="Likely next">
      <slot name="first" />
      <button v-for="action in actions" :key="action.name" type="button" @click="action.run">
        {{ action.name }}
      </button>
      <button
        v-for="starter in starters"
        :key="starter"
        type="button"
        @click="emit('begin', starter)"
      >
        {{ starter.trim() }}
      </button>
      <button type="button" @click="emit('list', 'done')">Did…</button>
      <button type="button" @click="emit('list', 'found')">Found…</button>
      <button type="button" @click="emit('list', 'jumpers')">Jumper…</button>
      <slot />
    </div>
    <div class="keys">
      <div class="words">
        <button v-for="word in words" :key="word" type="button" @click="emit('press', word)">
          {{ word.trim() }}
        </button>
      </div>
      <div class="digits">
        <button v-for="digit in digits" :key="digit" type="button" @click="emit('press', digit)">
          {{ digit === '-' ? '−' : digit }}
        </button>
      </div>
      <div class="ends">
        <button type="button" aria-label="Delete" @click="emit('press', 'back')">⌫</button>
        <button type="button" @click="emit('press', ' ')">space</button>
        <button type="button" :aria-pressed="letters" @click="emit('press', 'letters')">abc</button>
        <button type="button" aria-label="Close the keypad" @click="emit('press', 'done')">
          close
        </button>
        <button type="button" class="go" @click="emit('press', 'enter')">Write</button>
      </div>
    </div>
  </div>
</template>

<style scoped>
.pad {
  display: grid;
  gap: 6px;
  padding-top: 8px;
}
button {
  min-height: 48px;
  border: 1px solid var(--bar-line);
  border-radius: 6px;
  background: var(--bar-key);
  color: var(--bar-ink);
  font-size: 17px;
  padding: 0 4px;
}
.likely {
  display: flex;
  gap: 6px;
  overflow-x: auto;
  scrollbar-width: none;
}
.likely button {
  flex: none;
  padding: 0 12px;
  border-color: var(--accent);
}
.keys {
  display: grid;
  grid-template-columns: 56px 1fr 76px;
  gap: 6px;
}
.words,
.ends {
  display: grid;
  gap: 6px;
  grid-auto-rows: 1fr;
}
.digits {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px;
  grid-auto-rows: 1fr;
}
.digits button {
  font-size: 25px;
  font-weight: 500;
  min-height: 56px;
}
.ends button {
  min-height: 44px;
}
.go {
  background: var(--accent);
  border-color: var(--accent);
  color: var(--accent-ink);
  font-weight: 600;
}
</style>
