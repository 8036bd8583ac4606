<script setup lang="ts">
/**
 * What was done, in a line with its undo. It stands in the top bar, where it covers nothing; what went wrong needs more
 * room and hangs under it until it is read.
 */
import { X } from '@lucide/vue';
import KitButton from '../kit/KitButton.vue';
import { useChanges } from '../act/changes.ts';

const changes = useChanges();
</script>

<template>
  <div
    class="flex min-w-0 items-center"
    :role="changes.notice?.bad ? 'alert' : 'status'"
    aria-live="polite"
    :aria-atomic="true"
  >
    <p
      v-if="changes.notice"
      class="flex min-w-0 items-center gap-2.5"
      :class="
        changes.notice.bad &&
        'absolute right-4 top-[50px] z-50 max-w-[30rem] rounded-md bg-maddertint px-4 py-2 text-body text-madder shadow-lg'
      "
    >
      <span :class="!changes.notice.bad && 'truncate'" :title="changes.notice.text">{{ changes.notice.text }}</span>
      <KitButton
        v-if="changes.notice.changeIds.length"
        look="bare"
        class="shrink-0 font-semibold text-[#8fd6ca] underline underline-offset-2"
        @click="changes.undoAll(changes.notice.changeIds)"
        >Undo</KitButton
      >
      <KitButton look="bare" class="shrink-0 opacity-80 hover:opacity-100" name="Close" @click="changes.notice = null"
        ><X :size="14"
      /></KitButton>
    </p>
  </div>
</template>
