<script setup lang="ts">
import { computed } from 'vue';
import type { ImportReport } from '@pandecta/contract';
import { useChanges } from '../app/changes.ts';
import { useSession } from '../session/store.ts';
import { useJobs } from './jobs.ts';

const props = defineProps<{ report: ImportReport }>();
const changes = useChanges();
const jobs = useJobs();
const session = useSession();
const running = computed(() => jobs.isRunning(props.report.job));
const when = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' });
const figures = computed(() => [
  { n: props.report.added, says: 'new' },
  { n: props.report.known, says: 'already here' },
  { n: props.report.attached, says: 'files attached' },
  { n: props.report.withMessages, says: 'with messages' },
]);
const TONE = { error: 'text-madder', warning: 'text-ochre', info: 'text-muted' } as const;
</script>

<template>
  <article>
    <h2 class="font-serif text-title font-semibold">{{ report.title }}</h2>
    <p class="text-muted">
      {{ report.by }}, {{ when.format(new Date(report.at))
      }}<template v-if="report.destination"> · into {{ report.destination }}</template>
    </p>
    <div v-if="running" class="mt-4 max-w-xl" role="status">
      <progress
        class="h-1.5 w-full accent-verdigris"
        :max="report.job.total || 1"
        :value="report.job.done"
        aria-label="Progress of the import"
      />
      <p class="flex justify-between">
        {{ report.job.says || 'Waiting its turn'
        }}<button class="text-madder underline" @click="jobs.cancel(report.job.id)">Cancel</button>
      </p>
    </div>
    <p
      v-else-if="report.job.state !== 'done'"
      class="mt-3 rounded px-3 py-2"
      :class="report.job.state === 'failed' ? 'bg-maddertint text-madder' : 'bg-panel'"
    >
      {{ report.job.says }}
    </p>
    <template v-else>
      <div class="mt-4 flex gap-8">
        <dl class="flex gap-8">
          <div v-for="f in figures" :key="f.says">
            <dt class="sr-only">{{ f.says }}</dt>
            <dd>
              <span
                class="block font-mono text-display"
                :class="f.says === 'with messages' && f.n ? 'text-ochre' : ''"
                >{{ f.n.toLocaleString('en') }}</span><span class="text-muted">{{ f.says }}</span>
            </dd>
          </div>
        </dl>
        <div v-if="session.may('gather') && report.changeId" class="ml-auto self-center">
          <button v-if="report.undoable" class="btn" @click="changes.undoOne(report.changeId)">Undo this import</button>
          <span v-else class="text-muted">This import is undone</span>
        </div>
      </div>
      <h3 class="heading mt-6">Files</h3>
      <table class="mt-1 w-full">
        <thead class="sr-only">
          <tr>
            <th>Name</th>
            <th>Format</th>
            <th>What became of it</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="f in report.files" :key="f.name" class="border-b border-line align-top">
            <td class="w-64 max-w-64 truncate py-1 pr-4 font-medium" :title="f.name">{{ f.name }}</td>
            <td class="w-24 py-1 pr-4 text-muted">{{ f.format }}</td>
            <td class="py-1" :class="f.trouble && 'text-madder'">
              <RouterLink v-if="f.sourceId" :to="`/sources?at=${f.sourceId}`" class="hover:underline">{{
                f.outcome
              }}</RouterLink><template v-else>{{ f.outcome }}</template>
            </td>
          </tr>
        </tbody>
      </table>
      <template v-if="report.messages.length">
        <h3 class="heading mt-6">
          Messages<template v-if="report.messagesInAll > report.messages.length">
            · the first {{ report.messages.length.toLocaleString('en') }} of
            {{ report.messagesInAll.toLocaleString('en') }}</template
          >
        </h3>
        <ul class="mt-1">
          <li
            v-for="(m, i) in report.messages"
            :key="i"
            class="grid grid-cols-[4.5rem_13rem_1fr] gap-3 border-b border-line py-1"
          >
            <span :class="TONE[m.severity]">{{ m.severity }}</span>
            <span class="truncate text-muted" :title="m.file"
              >{{ m.file }}<template v-if="m.line">, line {{ m.line }}</template></span
            >
            <span
              >{{ m.what }}; <span class="text-muted">{{ m.done }}</span></span
            >
          </li>
        </ul>
      </template>
    </template>
  </article>
</template>
