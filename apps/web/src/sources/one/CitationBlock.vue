<script setup lang="ts">
/** A source as it will print: in the list at the end, and in the text. */
import StyleChooser from '../../citing/StyleChooser.vue';
import { useCiting } from '../../citing/store.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import KitButton from '../../kit/KitButton.vue';

const props = defineProps<{ id: string; pause?: () => number }>();
const citing = useCiting();
const { data: cited } = useAsked({
  question: () => ({ id: props.id, style: citing.style.id, locale: citing.locale }),
  fetch: ({ id }, signal) => citing.cite({ ids: [id] }, true, signal),
  concerns: (touched, { id }) => concerns(touched, ['source'], id),
  ...(props.pause && { pause: props.pause }),
});
</script>

<template>
  <div>
    <div class="mb-1 flex items-center gap-3">
      <h3 class="heading min-w-0 flex-1 truncate">Citation · {{ citing.style.title }}</h3>
      <KitButton look="quiet" title="Copy (c)" @click="citing.copyCited({ ids: [id] }, 'bibliography')">Copy</KitButton>
      <StyleChooser />
    </div>
    <!-- eslint-disable vue/no-v-html -- made by the citation processor, which escapes what comes from records -->
    <p
      v-if="cited?.entries[0]"
      class="font-serif text-body leading-[1.38]"
      data-testid="citation"
      v-html="cited.entries[0].html"
    />
    <p v-else-if="cited" class="text-body text-muted">{{ citing.unprintedWords(cited) }}.</p>
    <p v-if="cited?.citationHtml" class="mt-1 text-fine text-muted">
      In the text: <span v-html="cited.citationHtml" />
    </p>
    <!-- eslint-enable vue/no-v-html -->
  </div>
</template>
