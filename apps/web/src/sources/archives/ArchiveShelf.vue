<script setup lang="ts">
/** A part of an archive with the parts of it and the sources that lie there: what was scanned of each, and what not. */
import { ChevronDown, ChevronRight } from '@lucide/vue';
import { ref } from 'vue';
import type { ArchivedSource } from '@pandecta/contract';
import { counted, formatNumber } from '@pandecta/core/wording';
import KitButton from '../../kit/KitButton.vue';
import type { Shelf } from './shelves.ts';

const props = defineProps<{ shelf: Shelf; level: number }>();
/** An archive and its collections lie open. */
const isOpen = ref(props.level < 2);
const whatOf = ({ pages, taken, sorted }: ArchivedSource): string =>
  pages
    ? [
        counted(pages, 'page'),
        taken ? `${formatNumber(taken)} taken out` : '',
        sorted ? `${formatNumber(sorted)} decided on` : '',
      ]
        .filter(Boolean)
        .join(' · ')
    : 'not scanned';
</script>

<template>
  <section :class="level ? 'ml-4' : 'mt-4'">
    <component :is="`h${Math.min(6, level + 2)}`" class="flex items-baseline gap-2 border-b border-line py-1">
      <KitButton
        look="bare"
        class="inline-flex min-h-6 items-center gap-1.5 font-medium"
        :aria-expanded="isOpen"
        @click="isOpen = !isOpen"
      >
        <component :is="isOpen ? ChevronDown : ChevronRight" :size="14" aria-hidden="true" />{{ shelf.name }}
      </KitButton>
      <span class="ml-auto text-fine font-normal text-muted"
        >{{ counted(shelf.count, 'source') }}{{ shelf.pages ? ` · ${counted(shelf.pages, 'page')}` : ''
        }}{{ shelf.scanned < shelf.count ? ` · ${formatNumber(shelf.count - shelf.scanned)} not scanned` : '' }}</span
      >
    </component>
    <template v-if="isOpen">
      <ul v-if="shelf.sources.length" class="ml-4">
        <li v-for="s in shelf.sources" :key="s.id" class="flex min-h-7 items-baseline gap-3 border-b border-line py-1">
          <RouterLink class="min-w-0 flex-1 truncate font-serif hover:underline" :to="`/sources?at=${s.id}`">{{
            s.title
          }}</RouterLink>
          <span class="shrink-0 text-fine" :class="s.pages ? 'text-muted' : 'text-ochre'">{{ whatOf(s) }}</span>
        </li>
      </ul>
      <ArchiveShelf v-for="part in shelf.shelves" :key="part.name" :shelf="part" :level="level + 1" />
    </template>
  </section>
</template>
