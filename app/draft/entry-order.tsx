import {
  DndContext,
  MouseSensor,
  TouchSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { ArrowDown, ArrowUp, GripVertical } from "lucide-react";
import type { ReactNode } from "react";

/** A list whose order is dragged, or moved with buttons by who does not drag. */
export function Ordered({
  many,
  onMove,
  children,
}: {
  many: number;
  onMove: (from: number, to: number) => void;
  children: (i: number) => ReactNode;
}) {
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 8 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 180, tolerance: 8 } }),
  );
  return (
    <DndContext
      sensors={sensors}
      onDragEnd={({ active, over }) => {
        if (over && over.id !== active.id) onMove(Number(active.id), Number(over.id));
      }}
    >
      {Array.from({ length: many }, (_, i) => (
        <Movable key={i} at={i} many={many} onMove={onMove}>
          {children(i)}
        </Movable>
      ))}
    </DndContext>
  );
}

function Movable({
  at,
  many,
  onMove,
  children,
}: {
  at: number;
  many: number;
  onMove: (from: number, to: number) => void;
  children: ReactNode;
}) {
  const { setNodeRef: grip, listeners, isDragging } = useDraggable({ id: `${at}` });
  const { setNodeRef: place, isOver } = useDroppable({ id: `${at}` });
  return (
    <li
      ref={place}
      className={`flex items-center ${isOver && !isDragging ? "border-primary border-t-4" : ""} ${isDragging ? "opacity-40" : ""}`}
      data-entry={at + 1}
    >
      <span
        ref={grip}
        className="flex h-11 w-7 shrink-0 cursor-grab touch-none items-center justify-center"
        {...listeners}
        data-grip
      >
        <GripVertical size={18} aria-hidden="true" />
      </span>
      <span className="min-w-0 grow">{children}</span>
      <button
        type="button"
        className="btn btn-ghost btn-sm touch px-1"
        aria-label={`Move ${at + 1} up`}
        disabled={at === 0}
        onClick={() => onMove(at, at - 1)}
      >
        <ArrowUp size={18} aria-hidden="true" />
      </button>
      <button
        type="button"
        className="btn btn-ghost btn-sm touch px-1"
        aria-label={`Move ${at + 1} down`}
        disabled={at === many - 1}
        onClick={() => onMove(at, at + 1)}
      >
        <ArrowDown size={18} aria-hidden="true" />
      </button>
    </li>
  );
}
