import { DndContext, PointerSensor, useDraggable, useSensor, useSensors } from '@dnd-kit/core';
import { type ReactNode, useEffect, useRef } from 'react';

/** What is dragged, and where in the window the pointer is, in pixels. */
export interface Drag {
  id: string;
  x: number;
  y: number;
}

/** Pixels moved before a press becomes a drag. */
const SLACK = 4;

/**
 * Ground on which things are dragged by pointer; Esc lets them be where they were. Keys are the things' own, so what is
 * said of a thing to those who do not look is how it moves by keys.
 */
export function DragGround({
  byKeys,
  onMove,
  onDrop,
  onLeave,
  children,
}: {
  byKeys: string;
  onMove: (drag: Drag) => void;
  onDrop: (drag: Drag) => void;
  onLeave: () => void;
  children: ReactNode;
}) {
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: SLACK } }));
  // As it is in the window, however far the page was scrolled under it.
  const pointer = useRef({ x: 0, y: 0 });
  useEffect(() => {
    const moved = ({ clientX: x, clientY: y }: PointerEvent) => {
      pointer.current = { x, y };
    };
    window.addEventListener('pointermove', moved, true);
    return () => window.removeEventListener('pointermove', moved, true);
  }, []);
  const where = (id: string | number): Drag => ({ id: String(id), ...pointer.current });
  return (
    <DndContext
      sensors={sensors}
      accessibility={{
        screenReaderInstructions: { draggable: byKeys },
        // Where it would land is said on the page itself.
        announcements: {
          onDragStart: () => undefined,
          onDragOver: () => undefined,
          onDragEnd: () => undefined,
          onDragCancel: () => 'It stays where it was.',
        },
      }}
      onDragMove={({ active }) => onMove(where(active.id))}
      onDragEnd={({ active }) => onDrop(where(active.id))}
      onDragCancel={onLeave}
    >
      {children}
    </DndContext>
  );
}

/** Makes an element one that is dragged on the ground around it: spread on it. */
export function useDrag(id: string, can: boolean) {
  const { setNodeRef, listeners, attributes } = useDraggable({ id, disabled: !can });
  return can ? { ref: setNodeRef, 'aria-describedby': attributes['aria-describedby'], ...listeners } : {};
}
