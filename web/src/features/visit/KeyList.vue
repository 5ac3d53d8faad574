<script setup lang="ts">
import { KEYS } from './keyboard'

const LINES = [
  ['o2 6.4 co 46 t 118', 'a flue sample'],
  ['mp 3.2 hi', 'manifold pressure, high fire'],
  ['draft .92', 'draft at the switch'],
  ['ua 2.4', 'flame signal'],
  ['v 2 3 25.9', 'volts between two nodes'],
  ['did clean rod', 'something done'],
  ['found soot', 'something seen'],
  ['jump call', 'a jumper put in'],
  ['code 2 4', 'a fault code'],
  ['leak ok', 'leak check passed'],
  ['cycles 5', 'full cycles watched'],
  ['cause blocked port', 'the cause, named'],
]
</script>

<template>
  <div class="keys">
    <dl>
      <template v-for="[key, text] in KEYS" :key="key">
        <dt>
          <kbd>{{ key }}</kbd>
        </dt>
        <dd>{{ text }}</dd>
      </template>
    </dl>
    <dl>
      <template v-for="[line, text] in LINES" :key="line">
        <dt>
          <b>{{ line }}</b>
        </dt>
        <dd>{{ text }}</dd>
      </template>
    </dl>
    <p class="muted">
      Escape leaves the bar. Units may follow a number: 8.7 mbar, 48 °C. hi, lo, found, left may
      stand anywhere.
    </p>
  </div>
</template>

<style scoped>
.keys {
  display: grid;
  gap: 14px;
}
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 4px 16px;
  margin: 0;
}
dd {
  margin: 0;
}
kbd {
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 1px 8px;
  font: inherit;
}
</style>
