<script setup lang="ts">
import { ChevronDown } from '@lucide/vue';
import { watchDebounced } from '@vueuse/core';
import { computed, ref } from 'vue';
import type { StyleInfo } from '@pandecta/core/citing';
import KitButton from '../kit/KitButton.vue';
import KitField from '../kit/KitField.vue';
import KitPopover from '../kit/KitPopover.vue';
import KitSelect from '../kit/KitSelect.vue';
import { useCiting } from './store.ts';

const citing = useCiting();
const like = ref('');
const found = ref<StyleInfo[]>([]);

async function look(): Promise<void> {
  found.value = await citing.find(like.value).catch(() => []);
}
watchDebounced(like, look, { debounce: 120 });
/** The first there is for what stands there now, whatever was found for fewer letters. */
async function takeFirst(close: () => void): Promise<void> {
  await look();
  const [first] = found.value;
  if (!first) return;
  citing.style = first;
  close();
}
const names = new Intl.DisplayNames(['en'], { type: 'language' });
const languages = computed(() => {
  const { language } = citing.style;
  const own = `As the style is made${language ? ` (${names.of(language)})` : ''}`;
  return [{ value: '', name: own }, ...citing.locales.map((l) => ({ value: l, name: `${names.of(l)} (${l})` }))];
});
</script>

<template>
  <KitPopover look="quiet" class="inline-flex items-center gap-0.5" at="bottom-end" focus @open="look">
    <template #button>Style<ChevronDown :size="12" aria-hidden="true" /></template
    ><template #default="{ close }">
      <div class="flex min-h-0 w-[26rem] flex-col px-2 py-2">
        <KitField
          v-model="like"
          placeholder="Any style by name"
          label="Find a style"
          @keydown.enter.prevent="takeFirst(close)"
        />
        <ul class="my-1 min-h-0 overflow-auto">
          <li v-for="s in found" :key="s.id">
            <KitButton
              look="bare"
              class="flex w-full items-baseline gap-3 rounded px-2 py-1 text-left hover:bg-verdtint"
              :aria-pressed="s.id === citing.style.id"
              :class="s.id === citing.style.id && 'font-semibold text-verdigris'"
              @click="((citing.style = s), close())"
            >
              <span class="flex-1">{{ s.title }}</span><span class="text-fine text-muted">{{ s.manner }}</span>
            </KitButton>
          </li>
          <li v-if="!found.length" class="px-2 py-1 text-muted">No style of this name is installed.</li>
        </ul>
        <KitSelect
          v-model="citing.locale"
          label="Language"
          above
          class="border-t border-line pt-2"
          :options="languages"
        />
      </div> </template
  ></KitPopover>
</template>
