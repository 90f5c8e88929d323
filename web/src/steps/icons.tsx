import {
  Brush,
  Clock,
  Droplets,
  Eraser,
  FlaskConical,
  Hammer,
  type LucideIcon,
  PaintBucket,
  Scissors,
  Shield,
  Sparkles,
  Undo2,
  Waves,
  Wind,
} from "lucide-react";

const icons: Record<string, LucideIcon> = {
  clean: Droplets,
  abrade: Eraser,
  dust: Wind,
  raise_grain: Waves,
  coat: Brush,
  wait: Clock,
  strip: Scissors,
  fill: PaintBucket,
  repair: Hammer,
  mask: Shield,
  remove: Scissors,
  reassemble: Undo2,
  effect: Sparkles,
  test: FlaskConical,
};

export function StepIcon({ kind, className = "size-5" }: { kind: string; className?: string }) {
  const Icon = icons[kind] ?? Brush;
  return <Icon className={`${className} shrink-0`} aria-hidden="true" />;
}
