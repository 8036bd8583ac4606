<script setup lang="ts">
import { computed } from 'vue';
import type { FoundWork } from '@pandecta/contract';
import { belowOf, withoutMarkup } from '@pandecta/core/source';
import { counted } from '@pandecta/core/wording';
import RecordLine from './RecordLine.vue';

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
  <RecordLine
    :kind="record.type"
    :title="withoutMarkup(record.title ?? 'Untitled')"
    :below="belowOf(record)"
    :known="Boolean(here)"
    :checked="checked"
    :current="current"
    @check="emit('check')"
  >
    <p v-if="row.gathered" class="text-verdigris">in the intake</p>
    <p v-else-if="where" class="text-ochre" :title="here!.places.join('\n')">{{ where }}</p>
    <p v-else-if="row.isNew" class="text-verdigris">new</p>
    <p class="text-muted">
      {{ counted(new Set(row.in.map((i) => i.catalogue)).size, 'catalogue')
      }}<template v-if="row.hasPdf"> · PDF</template>
    </p>
  </RecordLine>
</template>
