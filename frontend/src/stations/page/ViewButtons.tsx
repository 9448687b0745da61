export function ViewButtons({ onZoom, onWhole }: { onZoom: (by: number) => void; onWhole: () => void }) {
  return (
    <div className="absolute bottom-2 left-2 flex gap-0.5 border border-rule bg-work" onPointerDown={(e) => e.stopPropagation()}>
      <button className="px-2 py-0.5 hover:text-madder" aria-label="Closer" onClick={() => onZoom(1.25)}>
        +
      </button>
      <button className="px-2 py-0.5 hover:text-madder" aria-label="Further" onClick={() => onZoom(0.8)}>
        −
      </button>
      <button aria-label="Whole sheet" className="px-1.5 py-0.5 text-[12px] hover:text-madder" onClick={onWhole}>
        whole
      </button>
    </div>
  );
}
