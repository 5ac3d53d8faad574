<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '@/api/client'
import { useDesk } from '@/parts/desk/desk'
import Card from '@/ui/Card.vue'

/** The technician's own safety, before the unit. */
defineProps<{ page: Schemas['VisitPage']; gasSmell: string[] }>()
const desk = useDesk()
const smell = ref(false)
</script>

<template>
  <Card title="First, you" class="safety">
    <p>
      Personal CO monitor on. Room CO on entry:
      <b>{{ page.room_co ? `${page.room_co.text} ppm` : 'not read' }}</b>
    </p>
    <div class="pair">
      <button class="btn" :disabled="!page.writable" @click="desk.begin('room ', 'room')">
        Write room CO
      </button>
      <button class="btn" :disabled="!page.writable" @click="desk.begin('lel ', 'room')">
        Write % LEL
      </button>
      <button class="btn danger" :aria-expanded="smell" @click="smell = !smell">I smell gas</button>
    </div>
    <div v-if="smell" class="alarm" role="alert">
      <ol>
        <li v-for="line in gasSmell" :key="line">{{ line }}</li>
      </ol>
      <button class="btn" :disabled="!page.writable" @click="desk.write('found gas smell')">
        Write it on the tape when you are outside
      </button>
    </div>
  </Card>
</template>

<style scoped>
.safety {
  border-left: 7px solid var(--out);
}
.pair {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
}
.danger {
  border-color: var(--out);
  color: var(--out);
  font-weight: 600;
}
.alarm {
  padding: 10px 14px;
  border-left: 5px solid var(--out);
  background: var(--danger-ground);
  font-size: 18px;
  font-weight: 500;
}
ol {
  margin: 0 0 8px;
  padding-left: 20px;
}
</style>
