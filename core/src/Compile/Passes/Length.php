<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile\Passes;

use CrispReel\Core\Compile\Draft;
use CrispReel\Core\Compile\Pass;
use CrispReel\Core\Document\Shot;

/** How long the scene is, and with it where the last shot ends. */
final class Length implements Pass
{
    /** An empty scene still has this many seconds to scrub in. */
    private const LEAST_SECONDS = 4.0;

    private Draft $draft;

    public function settle(Draft $draft): void
    {
        $this->draft = $draft;
        $frames = $this->frames();
        $draft->putLength($frames, array_map(static fn (Shot $s): Shot => $s->until($frames), $draft->document->shots));
    }

    private function frames(): int
    {
        [$lanes, $drives] = [$this->draft->lanes(), $this->draft->drives()];
        $end = $this->draft->document->rate->frame(self::LEAST_SECONDS);
        $found = 0.0;
        foreach ($lanes as $lane) {
            $found = max($found, $lane->end(false));
        }
        foreach ($this->draft->utterances() as $u) {
            $found = max($found, $u->end);
        }
        foreach ($this->draft->document->expressions as $e) {
            $found = max($found, (float) ($e->to ?? $e->from + 1));
        }
        foreach ($drives as $drive) {
            $found = max($found, $drive->end());
        }
        foreach ($this->draft->document->items as $item) {
            $found = max($found, ($item->moves === [] ? 0.0 : $item->moves[count($item->moves) - 1]->frame + 1.0));
        }
        foreach ($this->draft->document->shots as $s) {
            $found = max($found, (float) ($s->out ?? $s->in + 1));
        }
        foreach ($this->draft->document->cameras as $c) {
            $found = max($found, $c->keys[count($c->keys) - 1]->frame + 1);
        }
        foreach ($this->draft->document->framings as $f) {
            $found = max($found, (float) ($f->frame + max(1, $f->over)));
        }

        if ($found <= 0.0) {
            // Nothing but what repeats: once through the longest of it.
            foreach ($lanes as $lane) {
                $found = max($found, $lane->end());
            }
        }

        return (int) ceil(($found > 0.0 ? $found : $end) - 1e-6);
    }
}
