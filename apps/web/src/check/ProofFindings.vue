<script setup lang="ts">
/** What a rule found: as it is, and as it would be; what is sure is chosen already. */
import { computed, ref, watch } from 'vue';
import type { FindingOf } from '@pandecta/contract';
import { SURE } from '@pandecta/core/proofing';
import { variableLabel } from '@pandecta/core/source';
import { useDeeds } from '../act/commands.ts';
import EmptyState from '../kit/EmptyState.vue';
import KitButton from '../kit/KitButton.vue';
import KitCheck from '../kit/KitCheck.vue';
import { counted } from '../kit/words.ts';
import { useSession } from '../session/store.ts';
import { valueInWords } from '../sources/index.ts';
import { useCheck } from './store.ts';

const check = useCheck();
const session = useSession();
const rule = computed(() => check.findings?.rules.find((r) => r.id === check.rule));
const findings = computed(() => (rule.value ? (check.findings?.findings ?? []) : []));
const keyOf = (f: FindingOf): string => `${f.source} ${f.field}`;
/** What was ticked or unticked by hand; else what is sure is. */
const ticked = ref<Record<string, boolean>>({});
watch(
  () => check.rule,
  () => (ticked.value = {}),
);
const isTicked = (f: FindingOf): boolean => Boolean(f.mend) && (ticked.value[keyOf(f)] ?? f.sure >= SURE);
const chosen = computed(() => findings.value.filter(isTicked));
const mendable = computed(() => findings.value.filter((f) => f.mend));
const allTicked = computed(() => mendable.value.length > 0 && chosen.value.length === mendable.value.length);
function tickAll(): void {
  const to = !allTicked.value;
  ticked.value = Object.fromEntries(mendable.value.map((f) => [keyOf(f), to]));
}
const changes = (f: FindingOf) =>
  Object.keys(f.mend ?? {}).map((field) => ({
    field,
    before: valueInWords(field, (f.before as Record<string, unknown> | null)?.[field]),
    after: valueInWords(field, (f.mend as Record<string, unknown>)[field]),
  }));
const mend = (): unknown => (chosen.value.length && session.may('edit') ? void check.mend(chosen.value) : false);
useDeeds({ merge: mend });
</script>

<template>
  <EmptyState v-if="check.findings && !check.findings.rules.length" title="Nothing to mend"
    >{{ counted(check.findings.looked, 'record') }} looked over. New faults are found as records change.</EmptyState
  >
  <template v-else-if="rule">
    <header>
      <h1 class="flex items-baseline gap-3 font-serif text-title font-semibold">
        {{ rule.title
        }}<span class="font-sans text-fine font-normal text-muted">{{ counted(rule.count, 'finding') }}</span>
      </h1>
      <p class="mt-1 max-w-[46rem] text-muted">{{ rule.why }}</p>
    </header>
    <div class="mt-3 flex items-center gap-3 border-b border-line pb-1.5 text-fine text-muted">
      <KitCheck
        v-if="mendable.length && session.may('edit')"
        :checked="allTicked"
        :some="chosen.length > 0 && !allTicked"
        label="Choose all that can be mended"
        @check="tickAll"
      />
      <span class="font-semibold">{{ mendable.length ? 'Now, and as it would be' : 'What was found' }}</span>
      <template v-if="session.may('edit') && mendable.length">
        <KitButton look="main" class="ml-auto" :disabled="!chosen.length" title="Enter" @click="mend"
          >Mend {{ chosen.length === 1 ? 'the chosen one' : `the ${chosen.length} chosen` }}</KitButton
        >
      </template>
    </div>
    <ul :aria-label="rule.title">
      <li v-for="f in findings" :key="keyOf(f) + f.what" class="flex gap-3 border-b border-line py-2.5">
        <KitCheck
          v-if="session.may('edit') && f.mend"
          class="mt-1 shrink-0"
          :checked="isTicked(f)"
          :label="`Mend ${f.title}`"
          @check="ticked = { ...ticked, [keyOf(f)]: !isTicked(f) }"
        />
        <div class="min-w-0 flex-1">
          <template v-for="c in changes(f)" :key="c.field">
            <p v-if="c.before" class="break-words font-serif text-madder line-through">
              <span class="sr-only">Now: </span>{{ c.before }}
            </p>
            <p class="break-words font-serif">
              <span class="sr-only">As it would be: </span><span v-if="c.after" class="bg-verdtint">{{ c.after }}</span
              ><span v-else class="text-muted">nothing</span
              ><span v-if="changes(f).length > 1" class="ml-2 font-sans text-fine text-muted">{{
                variableLabel(c.field)
              }}</span>
            </p>
          </template>
          <p v-if="!f.mend" class="font-serif">{{ f.what }}</p>
          <p class="mt-0.5 text-fine text-muted">
            <RouterLink class="hover:underline" :to="`/sources?at=${f.source}`">{{ f.title }}</RouterLink><template
              v-if="f.who"
            >
              · {{ f.who }}</template
            >
          </p>
        </div>
        <p class="w-56 shrink-0 text-fine" :class="f.sure >= SURE ? 'text-muted' : 'text-ochre'">
          <template v-if="f.mend">{{ f.what }}; </template>{{ Math.round(f.sure * 100) }} % sure
        </p>
      </li>
    </ul>
    <p v-if="rule.count > findings.length" class="mt-2 text-fine text-muted">
      The first {{ findings.length }} of {{ rule.count.toLocaleString('en') }}; the others come when these are mended.
    </p>
  </template>
</template>
