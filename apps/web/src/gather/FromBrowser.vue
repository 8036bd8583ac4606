<script setup lang="ts">
/** How pages come in from the browser: keys for the clipper, and an address to keep among one's bookmarks. */
import { computed, ref } from 'vue';
import { routes, type GatherKey } from '@pandecta/contract';
import { ask } from '../api/client.ts';
import { useChanges } from '../act/changes.ts';
import ConfirmInPlace from '../kit/ConfirmInPlace.vue';
import KitButton from '../kit/KitButton.vue';
import KitDialog from '../kit/KitDialog.vue';
import KitField from '../kit/KitField.vue';
import TimeText from '../kit/TimeText.vue';
import { useSession } from '../session/store.ts';

const { attempt } = useChanges();
const session = useSession();
const open = ref(false);
const keys = ref<GatherKey[]>([]);
const name = ref('');
/** The key just made, which is shown this once. */
const made = ref('');
const connection = computed(() => `${location.origin}/w/${session.workspace?.id ?? ''}#${made.value}`);
const bookmark = `javascript:void(location.href='${location.origin}/gather?link='+encodeURIComponent(location.href))`;

async function show(): Promise<void> {
  open.value = true;
  made.value = '';
  keys.value = (await attempt(() => ask(routes.gather.keys, {})))?.keys ?? [];
}
async function make(): Promise<void> {
  const done = await attempt(() => ask(routes.gather.makeKey, { body: { name: name.value.trim() } }));
  if (!done) return;
  keys.value = done.keys;
  made.value = done.key;
  name.value = '';
}
async function revoke(key: string): Promise<void> {
  keys.value = (await attempt(() => ask(routes.gather.revokeKey, { key })))?.keys ?? keys.value;
}
</script>

<template>
  <section aria-label="From the browser">
    <KitButton look="quiet" @click="show">From the browser: the clipper and its keys</KitButton>
    <KitDialog v-model:open="open" at="side" title="From the browser">
      <h3 class="heading mt-5">The clipper</h3>
      <p class="mt-1">
        An extension for Chromium and Firefox: its button adds the page you are looking at to the intake, with the
        details the page gives. Build it with <code class="font-mono text-label">npm run clipper</code>; docs/clipper.md
        explains how to install it. It signs in with a key that can only add to the intake.
      </p>
      <form class="mt-3 flex gap-2" @submit.prevent="make">
        <KitField v-model="name" class="flex-1" label="Name of the new key" placeholder="Name of the new key: laptop" />
        <KitButton type="submit" look="main" :disabled="!name.trim()">Make a key</KitButton>
      </form>
      <div v-if="made" class="mt-2" role="status">
        <KitField :model-value="connection" label="The key" above readonly class="font-mono text-label" />
        <p class="text-fine text-muted">Paste it into the clipper now: it is shown only once.</p>
      </div>
      <ul class="mt-3">
        <li v-for="k in keys" :key="k.id" class="flex items-baseline gap-2 border-b border-line py-1.5">
          <span class="min-w-0 flex-1"
            ><b class="block truncate font-medium">{{ k.name }}</b
            ><span class="text-fine text-muted"
              >made <TimeText :at="k.madeAt" to="day" /><template v-if="k.usedAt">
                · last used <TimeText :at="k.usedAt" /></template
              ><template v-else> · never used</template></span
            ></span
          >
          <ConfirmInPlace
            does="Revoke"
            asks="It opens nothing from then on."
            yes="Revoke it"
            no="Keep it"
            @confirm="revoke(k.id)"
          />
        </li>
        <li v-if="!keys.length" class="text-muted">No key yet.</li>
      </ul>
      <h3 class="heading mt-6">A bookmark</h3>
      <p class="mt-1">
        If you cannot install extensions, bookmark this address and choose the bookmark on the page you want. Pandecta
        then fetches the public version of the page.
      </p>
      <KitField :model-value="bookmark" label="Address of the bookmark" readonly class="mt-1 font-mono text-label" />
    </KitDialog>
  </section>
</template>
