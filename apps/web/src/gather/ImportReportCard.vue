<script setup lang="ts">
import { computed } from 'vue';
import type { ImportReport } from '@pandecta/contract';
import { formatNumber } from '@pandecta/core/wording';
import { useChanges } from '../act/changes.ts';
import ConfirmInPlace from '../kit/ConfirmInPlace.vue';
import KitButton from '../kit/KitButton.vue';
import KitNotice from '../kit/KitNotice.vue';
import KitTable from '../kit/KitTable.vue';
import ProgressBar from '../kit/ProgressBar.vue';
import TimeText from '../kit/TimeText.vue';
import { useSession } from '../session/store.ts';
import { useJobs } from './jobs.ts';

const props = defineProps<{ report: ImportReport }>();
const changes = useChanges();
const jobs = useJobs();
const session = useSession();
const running = computed(() => jobs.isRunning(props.report.job));
const figures = computed(() => [
  ...(props.report.added || !props.report.waiting ? [{ n: props.report.added, says: 'new' }] : []),
  ...(props.report.waiting ? [{ n: props.report.waiting, says: 'in the intake' }] : []),
  { n: props.report.known, says: 'already here' },
  { n: props.report.attached, says: 'files attached' },
  { n: props.report.withMessages, says: 'with messages' },
]);
const FILE_COLUMNS = [
  { key: 'name', name: 'Name', class: 'w-64 max-w-64 font-medium' },
  { key: 'format', name: 'Format', class: 'w-24 text-muted' },
  { key: 'outcome', name: 'What became of it' },
];
const MESSAGE_COLUMNS = [
  { key: 'severity', name: 'Severity', class: 'w-[4.5rem]' },
  { key: 'where', name: 'Where', class: 'w-52 max-w-52 text-muted' },
  { key: 'what', name: 'What, and what was done' },
];
const TONE = { error: 'text-madder', warning: 'text-ochre', info: 'text-muted' } as const;
</script>

<template>
  <article>
    <h2 class="font-serif text-title font-semibold">{{ report.title }}</h2>
    <p class="text-muted">
      {{ report.by }}, <TimeText :at="report.at" /><template v-if="report.destination">
        · into {{ report.destination }}</template
      >
    </p>
    <p v-if="report.note" class="mt-1 font-serif">{{ report.note }}</p>
    <div v-if="running" class="mt-4 max-w-xl" role="status">
      <ProgressBar class="my-1" :max="report.job.total" :value="report.job.done" label="Progress of the import" />
      <div class="flex items-baseline gap-3">
        <p class="min-w-0 flex-1">
          <b v-if="report.job.state === 'paused'">Paused. </b>{{ report.job.says || 'Waiting its turn' }}
        </p>
        <KitButton v-if="report.job.rests" look="word" @click="jobs.rest(report.job)">{{
          report.job.state === 'paused' ? 'Go on' : 'Pause'
        }}</KitButton>
        <ConfirmInPlace
          does="Cancel"
          asks="Nothing of it comes."
          yes="Cancel it"
          no="Go on"
          @confirm="jobs.cancel(report.job.id)"
        />
      </div>
    </div>
    <KitNotice
      v-else-if="report.job.state !== 'done'"
      class="mt-3"
      boxed
      :tone="report.job.state === 'failed' ? 'bad' : 'plain'"
      >{{ report.job.says
      }}<KitButton v-if="session.may('gather')" look="word" class="ml-2" @click="jobs.again(report.job)"
        >Try again</KitButton
      ></KitNotice
    >
    <template v-else>
      <div class="mt-4 flex gap-8">
        <dl class="flex gap-8">
          <div v-for="f in figures" :key="f.says">
            <dt class="sr-only">{{ f.says }}</dt>
            <dd>
              <span
                class="block font-mono text-display"
                :class="f.says === 'with messages' && f.n ? 'text-ochre' : ''"
                >{{ formatNumber(f.n) }}</span><span class="text-muted">{{ f.says }}</span>
            </dd>
          </div>
        </dl>
        <div v-if="session.may('gather') && report.changeId" class="ml-auto flex gap-2 self-center">
          <KitButton v-if="report.undoable && report.waiting" look="main" to="/gather">Go through the intake</KitButton>
          <KitButton v-if="report.undoable" @click="changes.undoOne(report.changeId)">Undo this import</KitButton>
          <span v-else class="text-muted">This import is undone</span>
        </div>
      </div>
      <h3 class="heading mt-6">Files</h3>
      <KitTable label="Files" class="mt-1" :columns="FILE_COLUMNS" :rows="report.files">
        <template #name="{ row }"
          ><span class="block truncate" :title="row.name">{{ row.name }}</span></template
        >
        <template #format="{ row }">{{ row.format }}</template>
        <template #outcome="{ row }"
          ><span :class="row.trouble && 'text-madder'"
            ><RouterLink v-if="row.sourceId" :to="`/sources?at=${row.sourceId}`" class="hover:underline">{{
              row.outcome
            }}</RouterLink
            ><template v-else>{{ row.outcome }}</template></span
          ></template
        >
      </KitTable>
      <template v-if="report.fresh.length">
        <h3 class="heading mt-6">
          New<template v-if="report.added > report.fresh.length">
            · the first {{ formatNumber(report.fresh.length) }} of {{ formatNumber(report.added) }}</template
          >
        </h3>
        <ul class="mt-1 max-h-60 overflow-auto" aria-label="New" tabindex="0">
          <li v-for="s in report.fresh" :key="s.id" class="border-b border-line py-0.5">
            <RouterLink :to="`/sources?at=${s.id}`" class="font-serif hover:underline">{{ s.title }}</RouterLink>
          </li>
        </ul>
      </template>
      <template v-if="report.messages.length">
        <h3 class="heading mt-6">
          Messages<template v-if="report.messagesInAll > report.messages.length">
            · the first {{ formatNumber(report.messages.length) }} of {{ formatNumber(report.messagesInAll) }}</template
          >
        </h3>
        <KitTable label="Messages" class="mt-1" :columns="MESSAGE_COLUMNS" :rows="report.messages">
          <template #severity="{ row }"
            ><span :class="TONE[row.severity]">{{ row.severity }}</span></template
          >
          <template #where="{ row }"
            ><span class="block truncate" :title="row.file"
              >{{ row.file }}<template v-if="row.line">, line {{ row.line }}</template></span
            ></template
          >
          <template #what="{ row }"
            >{{ row.what }}; <span class="text-muted">{{ row.done }}</span></template
          >
        </KitTable>
      </template>
    </template>
  </article>
</template>
