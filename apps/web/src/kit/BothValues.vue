<script setup lang="ts">
/** Another's newer value beside one's own, for the person to choose between them. Neither is lost meanwhile. */
import KitButton from './KitButton.vue';

defineProps<{ by: string; theirs: string; yours: string }>();
const emit = defineEmits<{ theirs: []; yours: [] }>();
</script>

<template>
  <div class="@container rounded border border-ochre bg-panel px-2.5 py-1.5 text-fine" role="alert">
    <p>{{ by }} changed this since you opened it. Which version do you want to keep?</p>
    <dl class="mt-1 space-y-1">
      <!-- Where there is little room, as beside a page, the text stands below what it is. -->
      <div
        v-for="[what, text, keeps, choose] in [
          ['Theirs', theirs, 'Keep theirs', () => emit('theirs')],
          ['Yours', yours, 'Use mine', () => emit('yours')],
        ] as const"
        :key="what"
        class="grid grid-cols-[auto_1fr] items-baseline gap-x-2.5 @xs:grid-cols-[2.5rem_minmax(0,1fr)_6.5rem]"
      >
        <dt class="text-muted">{{ what }}</dt>
        <dd class="col-span-full row-start-2 font-serif break-words @xs:col-span-1 @xs:row-start-1">
          {{ text || 'nothing' }}
        </dd>
        <dd class="col-start-2 justify-self-end @xs:col-start-3 @xs:justify-self-stretch">
          <KitButton class="w-full" @click="choose">{{ keeps }}</KitButton>
        </dd>
      </div>
    </dl>
  </div>
</template>
