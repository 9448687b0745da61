import { useQuery } from "@tanstack/react-query";
import { useCallback } from "react";
import { api, kept, type Brush, type Schemas } from "../../shared/api/client";
import { fitView } from "../../shared/view/view";
import { passesOf, stampOf, stampShapes, type Stamp } from "../../shared/view/stamp";
import type { Paint } from "../../shared/view/layers";
import { WorkCanvas } from "../../shared/view/WorkCanvas";

type Proposal = Schemas["ProposalMessage"];
export type CornerRole = "outside_corner" | "inside_corner";

const WORDS: Record<Proposal["way"], string> = {
  mitre: "mitred",
  lap: "lapped",
  bend: "bent round",
  across: "across the corner",
};

/** The corner pieces that can be made of the repeat, each laid between repeats; press one to take it. */
export function CornerProposals({
  brush,
  role,
  versions,
  onTake,
}: {
  brush: Brush;
  role: CornerRole;
  versions: string;
  onTake: (way: Proposal["way"]) => void;
}) {
  const { data, error } = useQuery({
    queryKey: ["corner-proposals", brush.id, brush.version, role, versions],
    queryFn: () => kept(api.GET("/api/brushes/{id}/corner-proposals/{role}", { params: { path: { id: brush.id, role } } })),
  });
  if (error) return <p className="mt-1 text-[12.5px]">{error.message}</p>;
  if (!data) return <p className="mt-1 text-[12.5px] text-moss">Making them…</p>;
  if (!data.proposals.length)
    return <p className="mt-1 text-[12.5px]">No corner can be made of this repeat; trace or cut it first.</p>;
  return (
    <div role="group" aria-label="Corner pieces to choose from" className="mt-1 grid grid-cols-4 gap-1.5">
      {data.proposals.map((proposal) => (
        <button
          key={proposal.way}
          className="border border-rule bg-work p-0.5 text-[11.5px] leading-tight hover:border-madder"
          onClick={() => onTake(proposal.way)}
        >
          <Sketch proposal={proposal} />
          {WORDS[proposal.way]}
        </button>
      ))}
    </div>
  );
}

function Sketch({ proposal }: { proposal: Proposal }) {
  const paint = useCallback<Paint>(
    (ctx, area, ratio) => {
      const [left, top, right, bottom] = proposal.box;
      const fitted = fitView(area.width, area.height, [right - left, bottom - top], 3);
      const s = fitted.scale * ratio;
      const [repeat, corner] = [stampOf(proposal.repeat), stampOf(proposal.corner)];
      for (const pass of passesOf([repeat, corner])) {
        const put = (stamp: Stamp, [a, b, c, d, e, f]: number[]): void => {
          ctx.setTransform(a * s, b * s, c * s, d * s, (e - left) * s + fitted.x * ratio, (f - top) * s + fitted.y * ratio);
          stampShapes(ctx, stamp, 0, pass);
        };
        proposal.repeat_matrices.forEach((matrix) => put(repeat, matrix));
        put(corner, proposal.corner_matrix);
      }
    },
    [proposal],
  );
  return (
    <span className="relative block h-[62px] w-full">
      <WorkCanvas paint={paint} label="the corner between repeats" className="absolute inset-0" />
    </span>
  );
}
