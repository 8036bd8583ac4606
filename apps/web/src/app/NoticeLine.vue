<script setup lang="ts">
import { useChanges } from './changes.ts';

const changes = useChanges();
</script>

<template>
  <div
    class="pointer-events-none fixed inset-x-0 bottom-4 z-50 flex justify-center"
    :role="changes.notice?.bad ? 'alert' : 'status'"
    aria-live="polite"
  >
    <p
      v-if="changes.notice"
      class="pointer-events-auto flex max-w-[44rem] items-center gap-3 rounded-md px-4 py-2 shadow-lg"
      :class="changes.notice.bad ? 'bg-maddertint text-madder' : 'bg-top text-toptext'"
    >
      <span>{{ changes.notice.text }}</span>
      <button
        v-if="changes.notice.changeId"
        class="font-semibold text-[#8fd6ca] underline underline-offset-2"
        @click="changes.undoOne(changes.notice.changeId)"
      >
        Undo
      </button>
      <button class="opacity-80 hover:opacity-100" aria-label="Close" @click="changes.notice = null">✕</button>
    </p>
  </div>
</template>
