<script setup lang="ts">
/** Notes as a list: walked with the arrows, opened with Enter, chosen to be joined. */
import { ref } from 'vue';
import type { NoteRow } from '@pandecta/contract';
import { placeWritten } from '@pandecta/core/page-numbers';
import { counted, formatNumber } from '@pandecta/core/wording';
import KitButton from '../kit/KitButton.vue';
import KitCheck from '../kit/KitCheck.vue';

defineProps<{ notes: NoteRow[]; total: number; open: string | undefined }>();
const emit = defineEmits<{ open: [id: string]; more: [] }>();
const chosen = defineModel<string[]>('chosen', { required: true });
const list = ref<HTMLElement>();
const toggle = (id: string): void => void (chosen.value = chosen.value.includes(id) ? chosen.value.filter((c) => c !== id) : [...chosen.value, id]); // prettier-ignore
/** Arrows go from title to title. */
function walk(event: KeyboardEvent): void {
  const by = { ArrowDown: 1, ArrowUp: -1, j: 1, k: -1 }[event.key];
  if (!by || event.ctrlKey || event.metaKey) return;
  const all = [...(list.value?.querySelectorAll<HTMLElement>('[data-note]') ?? [])];
  const at = all.indexOf(document.activeElement as HTMLElement);
  const next = all[Math.max(0, Math.min(all.length - 1, at + by))];
  if (!next) return;
  next.focus();
  event.preventDefault();
  event.stopPropagation();
}
</script>

<template>
  <ul ref="list" class="min-h-0 flex-1 overflow-auto" aria-label="Notes" @keydown="walk">
    <li
      v-for="n in notes"
      :key="n.id"
      class="group relative flex gap-2 border-b border-line px-4 py-2.5"
      :class="n.id === open ? 'bg-verdtint' : 'hover:bg-panel'"
    >
      <KitCheck
        class="mt-1"
        :checked="chosen.includes(n.id)"
        :label="`Choose ${n.title || 'Untitled note'}`"
        @check="toggle(n.id)"
      />
      <div class="min-w-0 flex-1">
        <KitButton
          look="bare"
          data-note
          class="block w-full text-left font-serif text-read font-semibold leading-snug after:absolute after:inset-y-0 after:left-9 after:right-0"
          :aria-current="n.id === open ? 'true' : undefined"
          @click="emit('open', n.id)"
          >{{ n.title || 'Untitled note' }}</KitButton
        >
        <p class="truncate font-serif">{{ n.excerpt }}</p>
        <p class="flex flex-wrap gap-x-4 text-fine text-muted">
          <span class="font-mono">{{ n.event ?? '–' }}</span>
          <span v-for="s in n.sources" :key="s.id">{{ s.name }}{{ s.cited ? `, ${placeWritten(s.cited)}` : '' }}</span>
          <span v-if="n.personal">yours alone</span>
          <span v-if="n.outlines">in {{ counted(n.outlines, 'outline') }}</span>
        </p>
      </div>
    </li>
    <li v-if="notes.length < total" class="py-3 text-center">
      <KitButton @click="emit('more')">Show {{ formatNumber(Math.min(50, total - notes.length)) }} more</KitButton>
    </li>
  </ul>
</template>
