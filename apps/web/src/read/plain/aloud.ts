/** Reading aloud by a voice of the browser, with the word lit that is spoken. */
import { computed, onScopeDispose, ref, shallowRef } from 'vue';

export function useAloud() {
  const synthesis = 'speechSynthesis' in window ? window.speechSynthesis : undefined;
  const voices = shallowRef<SpeechSynthesisVoice[]>(synthesis?.getVoices() ?? []);
  const list = (): void => void (voices.value = synthesis?.getVoices() ?? []);
  synthesis?.addEventListener?.('voiceschanged', list);
  /** What is spoken: the paragraph by its key, and the word in it. */
  const spoken = ref<{ key: string; start: number; end: number } | null>(null);
  const canSpeak = computed(() => voices.value.length > 0);
  let turn = 0;

  function stop(): void {
    turn += 1;
    synthesis?.cancel();
    spoken.value = null;
  }
  /** @param next the paragraphs from there on, one after the other */
  function speak(next: Iterator<{ key: string; text: string }>): void {
    stop();
    const mine = turn;
    const go = (): void => {
      const { value, done } = next.next() as IteratorResult<{ key: string; text: string }, undefined>;
      if (done || !synthesis || mine !== turn) return void (mine === turn && (spoken.value = null));
      const said = new SpeechSynthesisUtterance(value.text);
      spoken.value = { key: value.key, start: 0, end: 0 };
      said.onboundary = (event) => {
        if (mine !== turn || event.name !== 'word') return;
        const end = event.charIndex + (event.charLength || /^\S*/.exec(value.text.slice(event.charIndex))![0].length);
        spoken.value = { key: value.key, start: event.charIndex, end };
      };
      said.onend = go;
      said.onerror = () => mine === turn && stop();
      synthesis.speak(said);
    };
    go();
  }
  onScopeDispose(() => {
    stop();
    synthesis?.removeEventListener?.('voiceschanged', list);
  });

  return { canSpeak, spoken, speak, stop };
}
