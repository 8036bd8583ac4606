<script setup lang="ts">
/** What proofing finds in one source, in the style one writes in; each is mended or set aside where it stands. */
import { computed } from 'vue';
import { routes } from '@pandecta/contract';
import { ask } from '../api/client.ts';
import { useCiting } from '../citing/store.ts';
import { useAsked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';
import KitButton from '../kit/KitButton.vue';
import { useSession } from '../session/store.ts';
import BeforeAfter from './BeforeAfter.vue';
import { useFindingDeeds } from './findings.ts';

const props = defineProps<{
  id: string;
  /** While one types, each letter brings another source: see `useAsked`. */
  pause?: () => number;
}>();
const citing = useCiting();
const session = useSession();
const deeds = useFindingDeeds();
const { data: value } = useAsked({
  question: () => ({ id: props.id, style: citing.style.id }),
  fetch: ({ id, style }, signal) => ask(routes.check.findingsIn, { source: id, query: { style }, signal }),
  concerns: (touched, { id }) => concerns(touched, ['source'], id),
  pause: () => props.pause?.() ?? 0,
});
const findings = computed(() => (value.value?.findings ?? []).filter((f) => f.source === props.id));
const titleOf = (rule: string): string => value.value?.rules.find((r) => r.id === rule)?.title ?? rule;
</script>

<template>
  <section v-if="findings.length" aria-label="Findings">
    <h3 class="heading mb-1">
      Findings<span class="ml-1.5 font-normal text-muted">{{ findings.length }}</span>
    </h3>
    <ul class="space-y-2 text-fine">
      <li v-for="f in findings" :key="f.rule + f.field + f.what">
        <p>
          <b class="font-semibold text-ochre">{{ titleOf(f.rule) }}</b>
          <span v-if="!f.mend" class="text-muted"> · {{ f.what }}</span>
        </p>
        <BeforeAfter v-if="f.mend" :finding="f" />
        <p v-if="session.may('edit')" class="flex gap-3">
          <KitButton v-if="f.mend" look="word" @click="deeds.mend(f.rule, [f])">Mend</KitButton>
          <KitButton
            look="quiet"
            :title="`It is meant so: “${titleOf(f.rule)}” says nothing of this source any more`"
            @click="deeds.setAside(f.rule, [id])"
            >Leave as it is</KitButton
          >
        </p>
      </li>
    </ul>
  </section>
</template>
