<script setup lang="ts">
/** Another's newer value beside one's own, for the person to choose between them. Neither is lost meanwhile. */
import KitButton from './KitButton.vue';

defineProps<{ by: string; theirs: string; yours: string }>();
const emit = defineEmits<{ theirs: []; yours: [] }>();
</script>

<template>
  <div class="rounded border border-ochre bg-panel px-2.5 py-1.5 text-fine" role="alert">
    <p>{{ by }} changed this since you opened it. Which shall stand?</p>
    <dl class="mt-1 grid grid-cols-[auto_minmax(0,1fr)_auto] items-baseline gap-x-2.5 gap-y-1">
      <dt class="text-muted">Theirs</dt>
      <dd class="break-words font-serif">{{ theirs || 'nothing' }}</dd>
      <dd><KitButton class="w-full" @click="emit('theirs')">Keep theirs</KitButton></dd>
      <dt class="text-muted">Yours</dt>
      <dd class="break-words font-serif">{{ yours || 'nothing' }}</dd>
      <dd><KitButton class="w-full" @click="emit('yours')">Use mine</KitButton></dd>
    </dl>
  </div>
</template>
