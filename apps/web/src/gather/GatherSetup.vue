<script setup lang="ts">
/** What holds for all who gather here, for stewards: the outside catalogues, and what passes the intake. */
import { ref } from 'vue';
import { routes, type GatherSettings, type RecognitionLanguages } from '@pandecta/contract';
import { PROTOCOL_NAMES, PROTOCOLS, type ProtocolName } from '@pandecta/core/catalogues';
import { ask } from '../api/client.ts';
import { useChanges } from '../act/changes.ts';
import ConfirmInPlace from '../kit/ConfirmInPlace.vue';
import KitButton from '../kit/KitButton.vue';
import KitCheck from '../kit/KitCheck.vue';
import KitChecks from '../kit/KitChecks.vue';
import KitDialog from '../kit/KitDialog.vue';
import KitField from '../kit/KitField.vue';
import KitNotice from '../kit/KitNotice.vue';
import KitSelect from '../kit/KitSelect.vue';
import TimeText from '../kit/TimeText.vue';
import { useOutside } from './outside.ts';
import { useTrial } from './trial.ts';

const { attempt } = useChanges();
const outside = useOutside();
const open = ref(false);
const settings = ref<GatherSettings | null>(null);
const recognition = ref<RecognitionLanguages | null>(null);
const made = ref({ name: '', protocol: 'sru-1.2' as ProtocolName, address: '', word: 'test' });
const { tried, attempt: trial } = useTrial();
const protocols = PROTOCOL_NAMES.map((value) => ({ value, name: PROTOCOLS[value].name }));

async function show(): Promise<void> {
  open.value = true;
  settings.value = (await attempt(() => ask(routes.gather.settings, {}))) ?? null;
  recognition.value = (await attempt(() => ask(routes.files.languages, {}))) ?? null;
}
async function set(key: keyof GatherSettings): Promise<void> {
  const next = { ...settings.value!, [key]: !settings.value![key] };
  settings.value = (await attempt(() => ask(routes.gather.set, { body: next }))) ?? settings.value;
}
async function choose(languages: string[]): Promise<void> {
  // Text is recognised in one language at least.
  if (!languages.length) return;
  recognition.value =
    (await attempt(() => ask(routes.files.setLanguages, { body: { languages } }))) ?? recognition.value;
}
async function tryIt(): Promise<void> {
  const { protocol, address, word } = made.value;
  await trial(() => ask(routes.outside.tryCatalogue, { body: { protocol, address: address.trim(), word } }));
}
async function add(): Promise<void> {
  const { name, protocol, address } = made.value;
  const body = { name: name.trim(), protocol, address: address.trim() };
  if (!(await attempt(() => ask(routes.outside.addCatalogue, { body })))) return;
  made.value = { ...made.value, name: '', address: '' };
  tried.value = null;
  await outside.lookAtCatalogues();
}
async function remove(catalogue: string): Promise<void> {
  await attempt(() => ask(routes.outside.removeCatalogue, { catalogue }));
  await outside.lookAtCatalogues();
}
</script>

<template>
  <div>
    <KitButton look="quiet" @click="show">Catalogues, and what passes the intake</KitButton>
    <KitDialog v-model:open="open" at="side" title="Gathering here">
      <h3 class="heading mt-5">What passes the intake</h3>
      <div v-if="settings" class="mt-1.5 grid gap-1.5">
        <p class="flex items-center gap-2">
          <KitCheck
            :checked="settings.passComplete"
            label="Complete and new records go straight to the sources"
            @check="set('passComplete')"
          /><span aria-hidden="true">Complete and new records go straight to the sources</span>
        </p>
        <p class="flex items-center gap-2">
          <KitCheck
            :checked="settings.holdReferences"
            label="Reference files wait in the intake too"
            @check="set('holdReferences')"
          /><span aria-hidden="true">Reference files wait in the intake too</span>
        </p>
      </div>
      <KitChecks
        v-if="recognition"
        class="mt-6"
        legend="Languages in which the text of scans is recognised"
        :model-value="recognition.chosen"
        :options="recognition.installed.map((l) => ({ value: l.code, name: l.name }))"
        @update:model-value="choose"
      >
        <p class="text-fine text-muted">
          The language of a source’s record comes before these where it is installed. Another is installed on the server
          with one command, German for example: <code class="font-mono">apt-get install tesseract-ocr-deu</code>
        </p>
      </KitChecks>
      <h3 class="heading mt-6">Outside catalogues</h3>
      <ul class="mt-1">
        <li v-for="c in outside.catalogues" :key="c.id" class="border-b border-line py-1.5">
          <div class="flex items-baseline gap-2">
            <b class="min-w-0 flex-1 truncate font-medium">{{ c.name }}</b>
            <ConfirmInPlace
              does="Remove"
              asks="It is asked no more; what came of it stays."
              yes="Remove it"
              no="Keep it"
              @confirm="remove(c.id)"
            />
          </div>
          <p class="break-all font-mono text-label text-muted">{{ PROTOCOLS[c.protocol].name }} · {{ c.address }}</p>
          <p v-for="e in c.errors.slice(0, 3)" :key="e.at" class="text-fine text-madder">
            <TimeText :at="e.at" />: {{ e.says }}
          </p>
        </li>
      </ul>
      <form class="mt-4 grid gap-2" @submit.prevent="add">
        <h3 class="heading">Add a catalogue</h3>
        <KitField v-model="made.name" label="Name of the catalogue" placeholder="Name" />
        <KitSelect v-model="made.protocol" label="Protocol" :options="protocols" />
        <KitField v-model="made.address" label="Address of the catalogue" placeholder="https://…" class="font-mono" />
        <div class="flex gap-2">
          <KitField v-model="made.word" class="w-28" label="Word to try it with" placeholder="Word" />
          <KitButton :disabled="!made.address.trim() || !made.word.trim()" @click="tryIt">Try it</KitButton>
          <KitButton look="main" type="submit" :disabled="!made.name.trim() || !made.address.trim()">Add</KitButton>
        </div>
        <KitNotice v-if="tried" :tone="tried.answered ? 'plain' : 'bad'">{{ tried.says }}</KitNotice>
      </form>
    </KitDialog>
  </div>
</template>
