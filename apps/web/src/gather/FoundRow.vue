<script setup lang="ts">
import { computed } from 'vue';
import type { FoundWork } from '@pandecta/contract';
import { whenOf, whereOf, whoOf, withoutMarkup } from '@pandecta/core/source';
import CheckMark from '../kit/CheckMark.vue';
import ListRow from '../kit/ListRow.vue';
import StampMark from '../kit/StampMark.vue';
import { counted } from '../kit/words.ts';

const props = defineProps<{ row: FoundWork; checked: boolean; current: boolean }>();
const emit = defineEmits<{ check: [] }>();
const record = computed(() => props.row.record);
const here = computed(() => props.row.here);
const where = computed(() => {
  const h = here.value;
  if (!h) return '';
  const places = h.places.length ? `, in ${counted(h.places.length, 'place')}` : '';
  return h.verdict === 'certain' ? `here already${places}` : `${h.verdict} here already`;
});
</script>

<template>
  <ListRow :on="current || checked" class="py-1">
    <div class="grid h-full grid-cols-[16px_26px_minmax(0,1fr)_auto] gap-x-[11px]">
      <CheckMark class="mt-[3px]" :checked="checked" @check="emit('check')" />
      <StampMark :kind="record.type" />
      <div class="min-w-0">
        <p class="line-clamp-1 font-serif text-read leading-[1.28]" :class="here ? 'font-normal' : 'font-medium'">
          {{ withoutMarkup(record.title ?? 'Untitled') }}
        </p>
        <p class="truncate text-fine text-muted">
          {{ [whoOf(record), whereOf(record), whenOf(record)].filter(Boolean).join(' · ') }}
        </p>
      </div>
      <div class="text-right text-fine leading-[1.3]">
        <p v-if="row.gathered" class="text-verdigris">in the intake</p>
        <p v-else-if="where" class="text-ochre" :title="here!.places.join('\n')">{{ where }}</p>
        <p v-else-if="row.isNew" class="text-verdigris">new</p>
        <p class="text-muted">
          {{ counted(new Set(row.in.map((i) => i.catalogue)).size, 'catalogue')
          }}<template v-if="row.hasPdf"> · PDF</template>
        </p>
      </div>
    </div>
  </ListRow>
</template>
