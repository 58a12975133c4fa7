const CAUTIONS = {
  hot: 'Plastic at 175 °C sticks and keeps burning. Respirator with organic-vapour and acid-gas cartridges, air moving outside, gloves, long sleeves, eyes covered. No water near the cup. On skin: cool under running water, do not peel it off, get medical care.',
  scorch:
    'Past 190–200 °C it scorches: yellow, smoke, an acrid gas. Switch off, get the cup out of the room, do not breathe it.',
  clay: 'Not in the oven that cooks food. Too hot scorches and fumes: stay by it, air the room. The packet wins.',
  rubber:
    'Gloves and air; keep it off skin. Read the rubber’s own sheet. Platinum-cure rubber is inhibited by sulphur clays, some resins, latex and tin-cure rubber: test a spot on the master first.',
  resin:
    'Epoxy: gloves, eyes covered, air moving; it heats up in a deep cup and sensitizes skin for good. Its own sheet wins.',
  vacuum: 'Rated chamber only, cup at least four times the mix, eyes covered: it boils over before it collapses.',
  powder:
    'Pearl powder and ground salt are dust: wear particle filtration as well as the vapour cartridges. Damp pigment spits in hot plastisol.',
  remelt:
    'Given or used baits: dry, no hooks, no lead, no other rubber. One wet bait in a hot cup spits; one of another plastic spoils all of it.',
  dip: 'Rods and gloves dry before they come near the cup; quench bowl well away from it. Water in hot plastisol spits.',
  lead: 'Lead: gloves, wash hands afterwards, no eating or drinking beside it, none within reach of children. Many places restrict lead in tackle: tungsten, tin or brass do the same work.',
  machine:
    'Mills, spark erosion and lasers: licensed or trained people only, guards closed, chips and fumes drawn off. The machine’s own manual wins.',
  printed:
    'A printed mold softens: pour below what its material bears, clamp it between backing plates, and wear gloves with uncured resin.',
  design:
    'Copying another maker’s bait or its name can infringe design rights, copyright or a trademark, for own use and before selling. Local law decides.',
} as const;

/** The usual caution at the step where the work can hurt; sheets, local rules and trained advice win. */
export function Caution({ about }: { about: (keyof typeof CAUTIONS)[] }) {
  return (
    <aside className="caution" aria-label="Caution">
      {about.map((one) => (
        <p key={one} className="py-0.5">
          {CAUTIONS[one]}
        </p>
      ))}
      <p className="soft text-sm">The data sheet, local rules and trained advice win.</p>
    </aside>
  );
}
