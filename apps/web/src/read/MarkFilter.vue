<script setup lang="ts">
/** Which marks are shown on the page and in the strip: by sense, shape, person and words. */
import { ListFilter } from '@lucide/vue';
import { computed } from 'vue';
import type { Mark } from '@pandecta/contract';
import { isFiltered, NO_FILTER, SHAPE_NAMES, type MarkFilter, type Sense, type Shape } from '@pandecta/core/marks';
import KitButton from '../kit/KitButton.vue';
import KitCheck from '../kit/KitCheck.vue';
import KitField from '../kit/KitField.vue';
import KitPopover from '../kit/KitPopover.vue';

const props = defineProps<{ marks: Mark[]; senses: Sense[] }>();
const filter = defineModel<MarkFilter>({ required: true });

interface Choice {
  key: string;
  name: string;
  count: number;
}
/** What marks have of a sort, the most first. */
function choices(of: (m: Mark) => string, name: (key: string) => string): Choice[] {
  const counts = new Map<string, number>();
  for (const m of props.marks) counts.set(of(m), (counts.get(of(m)) ?? 0) + 1);
  return [...counts]
    .map(([key, count]) => ({ key, name: name(key), count }))
    .sort((a, b) => b.count - a.count || a.name.localeCompare(b.name, 'en'));
}
const sorts = computed(() => [
  {
    of: 'senses' as const,
    called: 'Sense',
    choices: choices(
      (m) => m.sense,
      (key) => props.senses.find((s) => s.id === key)?.name ?? 'Removed',
    ),
  },
  {
    of: 'shapes' as const,
    called: 'Shape',
    choices: choices(
      (m) => m.shape,
      (key) => SHAPE_NAMES[key as Shape],
    ),
  },
  {
    of: 'people' as const,
    called: 'Person',
    choices: choices(
      (m) => m.by,
      (key) => key,
    ),
  },
]);
const isOn = computed(() => isFiltered(filter.value));
function toggle(of: 'senses' | 'shapes' | 'people', key: string): void {
  const chosen: string[] = filter.value[of];
  const now = chosen.includes(key) ? chosen.filter((k) => k !== key) : [...chosen, key];
  filter.value = { ...filter.value, [of]: now };
}
</script>

<template>
  <KitPopover
    :look="isOn ? 'plain' : 'quiet'"
    :name="isOn ? 'Filter of marks, in use' : 'Filter the marks'"
    at="bottom-end"
    ><template #button><ListFilter :size="15" :class="isOn && 'text-verdigris'" /></template>
    <div class="flex w-64 flex-col gap-3 p-3">
      <KitField
        label="Words in the mark or its gloss"
        placeholder="Words in mark or gloss"
        :model-value="filter.words"
        @update:model-value="filter = { ...filter, words: String($event) }"
      />
      <fieldset v-for="s in sorts" :key="s.of">
        <legend class="heading">{{ s.called }}</legend>
        <label v-for="c in s.choices" :key="c.key" class="flex min-h-7 items-center gap-2"
          ><KitCheck
            :checked="(filter[s.of] as string[]).includes(c.key)"
            :label="`${c.name}, ${c.count}`"
            @check="toggle(s.of, c.key)"
          /><span class="min-w-0 flex-1 truncate">{{ c.name }}</span
          ><span class="text-muted">{{ c.count }}</span></label
        >
      </fieldset>
      <KitButton v-if="isOn" @click="filter = NO_FILTER">Show all marks</KitButton>
    </div>
  </KitPopover>
</template>
