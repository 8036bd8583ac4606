<script setup lang="ts">
/** One work that was found outside: its record and abstract, and where it was found. */
import { computed } from 'vue';
import type { FoundWork } from '@pandecta/contract';
import { dateShort, KINDS, nameSpoken, whereOf, withoutMarkup } from '@pandecta/core/source';
import KitButton from '../kit/KitButton.vue';
import { useOutside } from './outside.ts';

const props = defineProps<{ work: FoundWork }>();
const outside = useOutside();
const record = computed(() => props.work.record);
const nameOf = (id: string): string => outside.about?.asked.find((a) => a.id === id)?.name ?? '';
</script>

<template>
  <aside class="flex h-full flex-col bg-card" aria-label="Chosen">
    <div class="min-h-0 flex-1 overflow-auto px-[18px] py-3">
      <h2 class="font-serif text-read font-semibold leading-tight">{{ withoutMarkup(record.title ?? 'Untitled') }}</h2>
      <p class="mt-1">{{ (record.author ?? []).map(nameSpoken).join(', ') }}</p>
      <p class="text-muted">
        {{
          [KINDS[record.type].name, whereOf(record), record.page && `pp. ${record.page}`, dateShort(record.issued)]
            .filter(Boolean)
            .join(' · ')
        }}
      </p>
      <p v-if="record.DOI" class="mt-0.5 break-all font-mono text-label">{{ record.DOI }}</p>
      <p v-if="work.here" class="mt-2 text-ochre">
        {{ work.here.verdict === 'certain' ? 'Here already' : `${work.here.verdict} here already`
        }}<template v-if="work.here.places.length">: {{ work.here.places.join(', ') }}</template
        >.
        <RouterLink class="text-verdigris underline underline-offset-2" :to="`/sources?at=${work.here.id}`"
          >Show it</RouterLink
        >
      </p>
      <h3 class="heading mb-1 mt-4">Found in</h3>
      <ul>
        <li v-for="i in work.in" :key="i.catalogue + i.accession">
          {{ nameOf(i.catalogue) }} <span class="font-mono text-label text-muted">{{ i.accession }}</span>
        </li>
      </ul>
      <template v-if="record.abstract">
        <h3 class="heading mb-1 mt-4">Abstract</h3>
        <p class="font-serif leading-[1.45]">{{ withoutMarkup(record.abstract) }}</p>
      </template>
    </div>
    <div class="flex shrink-0 gap-1.5 border-t border-line px-[18px] py-2">
      <KitButton look="main" title="i" @click="outside.gather()">{{
        work.gathered ? 'Gather it again' : 'Gather it'
      }}</KitButton>
    </div>
  </aside>
</template>
