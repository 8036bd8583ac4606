<script setup lang="ts">
/** The ask line: scope, narrowing and words stand together, as chips and text. Results come as one types. */
import { Search, X } from '@lucide/vue';
import { useThrottleFn } from '@vueuse/core';
import { computed, ref, useTemplateRef, watch } from 'vue';
import { KINDS, type Kind } from '@pandecta/core/source';
import { useDeeds } from '../act/commands.ts';
import { useBeside } from '../kit/floating.ts';
import KitButton from '../kit/KitButton.vue';
import KitField from '../kit/KitField.vue';
import { usePlaces } from '../places/store.ts';
import { useSession } from '../session/store.ts';
import { useAsk } from './ask.ts';
import { useLedger } from './ledger.ts';
import { useNarrow } from './narrow.ts';

const ask = useAsk();
const ledger = useLedger();
const places = usePlaces();
const narrow = useNarrow();
const session = useSession();
const draft = ref(ask.text);
const input = useTemplateRef<InstanceType<typeof KitField>>('input');
const helpOpen = ref(false);
const helpAt = useBeside(useTemplateRef<HTMLElement>('line'), useTemplateRef<HTMLElement>('help'));

// The first letter goes at once; while more follow, what stands there then.
const send = useThrottleFn(() => ask.setText(draft.value), 80, true, true);
watch(draft, () => void send());
watch(
  () => ask.text,
  (text) => text !== draft.value.trim() && text !== draft.value && (draft.value = text),
);

useDeeds({
  ask: () => {
    input.value?.focus();
    input.value?.select();
  },
});

interface Chip {
  text: string;
  out: boolean;
  remove: () => void;
}

const chips = computed<Chip[]>(() => {
  const out: Chip[] = [];
  if (ask.collection)
    out.push({ text: `in: ${places.pathOf(ask.collection)}`, out: false, remove: () => ask.setCollection(undefined) });
  if (ask.scope === 'loose') out.push({ text: 'in no collection', out: false, remove: () => ask.setScope('live') });
  if (ask.scope === 'bin') out.push({ text: 'in the bin', out: true, remove: () => ask.setScope('live') });
  for (const f of ask.include) out.push({ text: facetText(f), out: false, remove: () => ask.drop(f) });
  for (const f of ask.exclude) out.push({ text: `not ${facetText(f)}`, out: true, remove: () => ask.drop(f) });
  const [from, to] = ask.years;
  if (from !== undefined || to !== undefined)
    out.push({
      text: `years: ${from ?? '…'}–${to ?? '…'}`,
      out: false,
      remove: () => ask.setYears(undefined, undefined),
    });
  return out;
});

function facetText(facet: string): string {
  const at = facet.indexOf('=');
  const [type, key] = [facet.slice(0, at), facet.slice(at + 1)];
  const name = narrow.nameOf(type, key) ?? (type === 'kind' ? KINDS[key as Kind]?.name : undefined) ?? key;
  return `${type}: ${name.toLowerCase() === name || type === 'person' ? name : name.toLowerCase()}`;
}

/** To the list, or out of the line where there is none. */
function leave(): void {
  input.value?.blur();
  document.getElementById('ledger')?.focus();
}

function key(event: KeyboardEvent): void {
  if (event.key === 'Backspace' && !draft.value && input.value?.caret() === 0) chips.value.at(-1)?.remove();
  // Escape only leaves: the words stay, and a second one clears them.
  else if (['Enter', 'ArrowDown', 'Escape'].includes(event.key)) leave();
  else return;
  event.preventDefault();
}
</script>

<template>
  <div class="flex items-center gap-2 border-b border-line px-4 py-2.5">
    <div
      ref="line"
      class="flex h-9 min-w-0 flex-1 items-center gap-1.5 rounded-md border-[1.5px] border-verdigris bg-card px-2.5 outline-verdigris has-[input:focus-visible]:outline-2 has-[input:focus-visible]:outline-offset-1"
      role="search"
      @click="input?.focus()"
    >
      <Search :size="15" class="shrink-0 text-muted" aria-hidden="true" />
      <div class="flex max-w-[62%] gap-1.5 overflow-x-auto">
        <span v-for="c in chips" :key="c.text" class="chip" :class="c.out && 'chip-out'"
          >{{ c.text
          }}<KitButton look="bare" :name="`Take away ${c.text}`" @click.stop="c.remove()"><X :size="12" /></KitButton
        ></span>
      </div>
      <KitField
        ref="input"
        v-model="draft"
        look="bare"
        class="min-w-40 flex-1 text-read"
        :placeholder="
          chips.length
            ? 'Words, or field:value'
            : 'Ask: words, “phrases”, -not, author:okonjo, year:1980-2026, tag:used'
        "
        label="Ask"
        style="outline: none"
        spellcheck="false"
        @keydown="key"
        @focus="helpOpen = true"
        @blur="helpOpen = false"
      />
      <KitButton
        v-if="draft || chips.length"
        look="quiet"
        class="shrink-0"
        @mousedown.prevent
        @click="((draft = ''), ask.clear())"
        >Clear</KitButton
      >
      <div
        v-if="ledger.notes.length && helpOpen"
        ref="help"
        class="z-30 rounded-md border border-line bg-card px-3 py-2 text-fine shadow-lg"
        :style="helpAt"
        role="status"
      >
        <p v-for="n in ledger.notes" :key="n.start" class="text-ochre">{{ n.says }}</p>
      </div>
    </div>
    <KitButton
      v-if="session.may('gather')"
      look="main"
      class="!py-[7px]"
      :to="ask.collection ? `/gather?into=${ask.collection}` : '/gather'"
      >Add sources</KitButton
    >
  </div>
</template>
