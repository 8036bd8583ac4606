<script setup lang="ts">
/** What members wrote about the whole of a source, under a heading of the same rank as those beside it. */
import { nextTick, ref, useTemplateRef, watch } from 'vue';
import { LONGEST_GLOSS, routes, type Gloss } from '@pandecta/contract';
import { useChanges } from '../../act/changes.ts';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import KitButton from '../../kit/KitButton.vue';
import KitField from '../../kit/KitField.vue';
import KitNotice from '../../kit/KitNotice.vue';
import TimeText from '../../kit/TimeText.vue';
import { useSession } from '../../session/store.ts';

const props = defineProps<{ id: string; heading: 'h2' | 'h3'; pause?: () => number }>();
const session = useSession();
const { change } = useChanges();
const { data, error } = useAsked({
  question: () => props.id,
  fetch: async (source, signal) => (await ask(routes.glosses.list, { source, signal })).glosses,
  concerns: (touched, id) => concerns(touched, ['source'], id) || concerns(touched, ['gloss']),
  pause: props.pause,
});

/** The gloss that is being rewritten, as it was when one began; "new" for one that is not there yet. */
const writing = ref<Gloss | 'new' | null>(null);
const text = ref('');
const field = useTemplateRef('field');
const form = useTemplateRef('form');
const isSaving = ref(false);
watch(
  () => props.id,
  () => (writing.value = null),
);

async function write(gloss: Gloss | 'new'): Promise<void> {
  writing.value = gloss;
  text.value = gloss === 'new' ? '' : gloss.text;
  await nextTick();
  // With its buttons, in a slip that is low.
  form.value?.scrollIntoView({ block: 'nearest' });
  field.value?.focus({ preventScroll: true });
}

async function save(): Promise<void> {
  const one = writing.value;
  if (!one || !text.value.trim() || isSaving.value) return;
  isSaving.value = true;
  const done = await change(() =>
    one === 'new'
      ? ask(routes.glosses.write, { source: props.id, body: { text: text.value } })
      : ask(routes.glosses.edit, { gloss: one.id, body: { text: text.value, seen: one.text } }),
  );
  isSaving.value = false;
  // What was refused stays written.
  if (done && writing.value === one) writing.value = null;
}
/** By Esc only where nothing would be lost. */
function leave(): void {
  if (writing.value && text.value.trim() === (writing.value === 'new' ? '' : writing.value.text)) writing.value = null;
}
const remove = (gloss: Gloss): Promise<unknown> => change(() => ask(routes.glosses.remove, { gloss: gloss.id }));
</script>

<template>
  <section v-if="data?.length || writing || session.may('mark') || error" aria-label="Glosses">
    <component :is="heading" class="heading mb-0.5 flex justify-between"
      >Glosses<KitButton
        v-if="session.may('mark') && writing !== 'new'"
        look="quiet"
        class="font-normal print:hidden"
        @click="write('new')"
        >+ gloss</KitButton
      ></component
    >
    <KitNotice v-if="error" tone="bad">{{ error }}</KitNotice>
    <ul>
      <li v-for="g in data ?? []" :key="g.id" class="group border-b border-line py-1 last:border-0">
        <template v-if="typeof writing === 'string' || writing?.id !== g.id">
          <p class="whitespace-pre-line break-words text-fine">{{ g.text }}</p>
          <p class="flex items-baseline gap-2 text-label text-muted">
            <span>{{ g.by }}, <TimeText :at="g.at" to="day" /></span>
            <template v-if="session.may('mark')"
              ><KitButton look="quiet" class="at-hand text-label print:hidden" name="Edit the gloss" @click="write(g)"
                >Edit</KitButton
              ><KitButton
                look="quiet"
                class="at-hand text-label hover:text-madder print:hidden"
                name="Remove the gloss"
                @click="remove(g)"
                >Remove</KitButton
              ></template
            >
          </p>
        </template>
      </li>
    </ul>
    <form v-if="writing" ref="form" class="mt-1 print:hidden" @submit.prevent="save" @keydown.esc.stop="leave">
      <KitField
        ref="field"
        v-model="text"
        label="Gloss on the whole source"
        :lines="3"
        :maxlength="LONGEST_GLOSS"
        placeholder="What you think of it as a whole"
        @keydown.ctrl.enter.prevent="save"
        @keydown.meta.enter.prevent="save"
      />
      <p class="mt-1 flex justify-end gap-1.5">
        <KitButton @click="writing = null">Cancel</KitButton
        ><KitButton look="main" type="submit" :disabled="!text.trim() || isSaving" title="Ctrl+Enter">Save</KitButton>
      </p>
    </form>
  </section>
</template>
