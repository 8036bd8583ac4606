/** Places what floats beside what it belongs to: on the side with room, within the window, cut off by no pane. */
import {
  autoUpdate,
  flip,
  offset,
  shift,
  size,
  useFloating,
  type Placement,
  type VirtualElement,
} from '@floating-ui/vue';
import { computed, type ComponentPublicInstance, type Ref } from 'vue';

type Anchor = Element | VirtualElement | ComponentPublicInstance | null | undefined;

const FROM_EDGE = 8;
/** Higher than this it scrolls. */
const HIGHEST = 420;

/** A component that is several elements begins with a piece of text: its first element follows. */
function elementOf(anchor: Anchor): Element | VirtualElement | null {
  const el: unknown = anchor && '$el' in anchor ? anchor.$el : anchor;
  return el instanceof CharacterData ? el.nextElementSibling : ((el as Element | VirtualElement | null) ?? null);
}

/** @returns the style that places it, to be bound to it */
export function useBeside(
  anchor: Ref<Anchor>,
  floating: Ref<HTMLElement | ComponentPublicInstance | null | undefined>,
  placement: Placement = 'bottom-start',
) {
  const { floatingStyles } = useFloating(
    computed(() => elementOf(anchor.value)),
    floating as Ref<HTMLElement>,
    {
      placement,
      strategy: 'fixed',
      transform: false,
      whileElementsMounted: autoUpdate,
      middleware: [
        offset(4),
        flip({ padding: FROM_EDGE }),
        shift({ padding: FROM_EDGE, crossAxis: true }),
        size({
          padding: FROM_EDGE,
          apply({ availableHeight, availableWidth, elements }) {
            elements.floating.style.maxHeight = `${Math.min(HIGHEST, Math.max(80, availableHeight))}px`;
            elements.floating.style.maxWidth = `${availableWidth}px`;
          },
        }),
      ],
    },
  );
  return floatingStyles;
}
