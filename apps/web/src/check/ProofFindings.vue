<script setup lang="ts">
/** What a rule found: as it is, and as it would be; what is sure is chosen already. */
import { computed, ref, watch } from 'vue';
import { MOST_AT_ONCE, type FindingOf } from '@pandecta/contract';
import { SURE } from '@pandecta/core/proofing';
import { isVariable } from '@pandecta/core/source';
import { counted, formatNumber } from '@pandecta/core/wording';
import { useDeeds } from '../act/commands.ts';
import EmptyState from '../kit/EmptyState.vue';
import KitButton from '../kit/KitButton.vue';
import KitCheck from '../kit/KitCheck.vue';
import { useSession } from '../session/store.ts';
import { BeforeAfter, useFindingDeeds } from '../sources/index.ts';
import MissingValue from './MissingValue.vue';
import { thingsLeft, useCheck } from './store.ts';

const check = useCheck();
const session = useSession();
const deeds = useFindingDeeds();
const rule = computed(() => check.findings?.rules.find((r) => r.id === check.rule));
// Those of the rule before stand under no other’s heading, and are mended by no key, while its own are on their way.
const findings = computed(() => (rule.value && check.isFound ? (check.findings?.findings ?? []) : []));
const left = computed(() => thingsLeft(check.findings?.rules));
const count = computed(() => (check.aside ? rule.value?.aside : rule.value?.count) ?? 0);
const keyOf = (f: FindingOf): string => `${f.source} ${f.field}`;
/** What was ticked or unticked by hand; else what is sure is. */
const ticked = ref<Record<string, boolean>>({});
watch(
  () => [check.rule, check.aside],
  () => (ticked.value = {}),
);
const isTicked = (f: FindingOf): boolean => ticked.value[keyOf(f)] ?? (Boolean(f.mend) && f.sure >= SURE && !check.aside); // prettier-ignore
const chosen = computed(() => findings.value.filter(isTicked));
const mendable = computed(() => chosen.value.filter((f) => f.mend));
const allTicked = computed(() => findings.value.length > 0 && chosen.value.length === findings.value.length);
function tickAll(): void {
  const to = !allTicked.value;
  ticked.value = Object.fromEntries(findings.value.map((f) => [keyOf(f), to]));
}
const mend = (): unknown =>
  mendable.value.length && session.may('edit') && !check.aside
    ? void deeds.mend(check.rule, mendable.value.slice(0, MOST_AT_ONCE))
    : false;
/** A rule that is set aside whole is taken up whole: nothing of it is chosen. */
const choosing = computed(() => session.may('edit') && !(check.aside && rule.value?.whole));
const sources = computed(() => [...new Set(chosen.value.map((f) => f.source))].slice(0, MOST_AT_ONCE));
/** What is only to be filled in is filled in here. */
const TYPED = new Set(['missing-part', 'no-identifier']);
const isMissing = (f: FindingOf): boolean => TYPED.has(f.rule) && isVariable(f.field);
useDeeds({ merge: mend });
</script>

<template>
  <EmptyState v-if="check.findings && !check.findings.rules.length" title="Nothing to mend"
    >{{ counted(check.findings.looked, 'record') }} checked. New problems are found as records change.</EmptyState
  >
  <template v-else-if="rule">
    <header>
      <h1 class="flex items-baseline gap-3 font-serif text-title font-semibold">
        {{ rule.title
        }}<span class="font-sans text-fine font-normal text-muted"
          >{{ counted(count, 'finding') }}{{ check.aside ? ', set aside' : '' }}</span
        >
      </h1>
      <p class="mt-1 max-w-[46rem] text-muted">{{ rule.why }}</p>
    </header>
    <div
      v-if="findings.length"
      class="mt-3 flex items-center gap-3 border-b border-line pb-1.5 text-fine font-semibold text-muted"
    >
      <KitCheck
        v-if="choosing"
        :checked="allTicked"
        :some="chosen.length > 0 && !allTicked"
        label="Choose all that were found"
        @check="tickAll"
      />
      <span class="flex-1">{{ findings.some((f) => f.mend) ? 'Now and after the change' : 'What was found' }}</span>
      <span class="w-24 shrink-0 lg:w-56">How it is known</span>
    </div>
    <p v-if="!check.isFound" class="mt-3 text-muted" role="status">Checking the records…</p>
    <ul :aria-label="rule.title">
      <li v-for="f in findings" :key="keyOf(f) + f.what" class="flex gap-3 border-b border-line py-2.5">
        <KitCheck
          v-if="choosing"
          class="mt-1 shrink-0"
          :checked="isTicked(f)"
          :label="`Choose ${f.title}`"
          @check="ticked = { ...ticked, [keyOf(f)]: !isTicked(f) }"
        />
        <div class="min-w-0 flex-1">
          <BeforeAfter v-if="f.mend" :finding="f" />
          <p v-else class="font-serif">{{ f.what }}</p>
          <MissingValue v-if="!f.mend && session.may('edit') && !check.aside && isMissing(f)" :finding="f" />
          <p class="mt-0.5 text-fine text-muted">
            <RouterLink class="hover:underline" :to="`/sources?at=${f.source}`">{{
              f.mend?.title === undefined ? f.title : f.who || 'Open it'
            }}</RouterLink><template v-if="f.who && f.mend?.title === undefined"> · {{ f.who }}</template>
          </p>
        </div>
        <p class="w-24 shrink-0 lg:w-56 text-fine" :class="f.sure >= SURE ? 'text-muted' : 'text-ochre'">
          <template v-if="f.mend">{{ f.what }}; </template>{{ Math.round(f.sure * 100) }} % sure
        </p>
      </li>
    </ul>
    <p v-if="check.isFound && count > findings.length && !rule.whole" class="mt-2 text-fine text-muted">
      The first {{ findings.length }} of {{ formatNumber(count) }}; the rest appear when these are done.
    </p>
    <div class="mt-4 flex flex-wrap items-center gap-1.5">
      <template v-if="session.may('edit')">
        <template v-if="check.aside">
          <KitButton v-if="rule.whole" look="main" @click="deeds.setAside(rule.id, [], false)"
            >Use this rule again</KitButton
          >
          <KitButton v-else look="main" :disabled="!chosen.length" @click="deeds.setAside(rule.id, sources, false)"
            >Take the {{ chosen.length }} chosen up again</KitButton
          >
        </template>
        <template v-else>
          <KitButton
            v-if="findings.some((f) => f.mend)"
            look="main"
            :disabled="!mendable.length"
            title="Enter"
            @click="mend"
            >Mend {{ mendable.length === 1 ? 'the chosen one' : `the ${mendable.length} chosen` }}</KitButton
          >
          <KitButton :disabled="!chosen.length" @click="deeds.setAside(rule.id, sources)"
            >Set the {{ chosen.length === 1 ? 'chosen one' : `${chosen.length} chosen` }} aside</KitButton
          >
          <KitButton @click="deeds.setAside(rule.id, [])">Set this rule aside everywhere</KitButton>
        </template>
      </template>
      <span class="ml-auto text-fine text-muted">{{
        left ? `${counted(left, 'thing')} left before these are ready` : 'These are ready'
      }}</span>
    </div>
  </template>
</template>
