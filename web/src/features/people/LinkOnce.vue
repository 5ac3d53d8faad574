<script setup lang="ts">
import { useClipboard } from '@vueuse/core'
import type { Schemas } from '@/api/client'
import { momentAt } from '@/ui/moments'

/** A link just made: shown this once, for it is kept nowhere. */
defineProps<{ made: Schemas['InvitedOut']; zone: string }>()
defineEmits<{ done: [] }>()
const { copy, copied } = useClipboard({ legacy: true })
</script>

<template>
  <div class="once" role="status">
    <b>
      {{ made.invitation.again ? 'New password for' : 'Invitation for' }} {{ made.invitation.name }}
    </b>
    <p>
      Give this link to {{ made.invitation.name }} and to nobody else. It opens once, until
      {{ momentAt(made.invitation.expires_at, zone) }}, and is not shown again.
    </p>
    <code>{{ made.link }}</code>
    <div class="actions">
      <button class="btn strong" @click="copy(made.link)">
        {{ copied ? 'Copied' : 'Copy the link' }}
      </button>
      <button class="btn" @click="$emit('done')">Done</button>
    </div>
  </div>
</template>

<style scoped>
.once {
  display: grid;
  gap: 10px;
  padding: 14px 16px;
  border: 1.5px solid var(--line);
  border-left: 7px solid var(--in);
  border-radius: 6px;
}
code {
  overflow-wrap: anywhere;
  font-family: var(--font);
  font-weight: 500;
}
.actions {
  display: flex;
  gap: 8px;
}
</style>
