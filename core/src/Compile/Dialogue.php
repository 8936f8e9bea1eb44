<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

/** Who speaks to whom, and who listens: whom a line names, who spoke just before or speaks next, or who stands nearest. */
final class Dialogue
{
    /** Seconds within which somebody answers. */
    private const ANSWERS = 6.0;

    /** Metres in which one is heard by those who take part. */
    private const HEARD = 6.0;

    /** @var array<string, list<Utterance>>|null */
    private ?array $heard = null;

    public function __construct(private readonly Draft $draft)
    {
    }

    /** @return string|null who is spoken to */
    public function addressee(Utterance $u): ?string
    {
        $items = $this->draft->document->items;
        if ($u->line->to !== null) {
            return isset($items[$u->line->to]) && $u->line->to !== $u->line->item ? $u->line->to : null;
        }
        $all = $this->draft->utterances();
        $k = (int) array_search($u, $all, true);
        $most = self::ANSWERS * $u->perSecond;
        foreach ([[$k - 1, -1], [$k + 1, 1]] as [$from, $step]) {
            for ($i = $from; isset($all[$i]); $i += $step) {
                $gap = $step < 0 ? $u->start - $all[$i]->end : $all[$i]->start - $u->end;
                if ($gap > $most) {
                    break;
                }
                if ($all[$i]->line->item !== $u->line->item) {
                    return $all[$i]->line->item;
                }
            }
        }

        return Gazes::nearestBefore($this->draft, $u->line->item, ($u->from + $u->to) / 2);
    }

    /** @return array<string, list<Utterance>> what everybody hears who takes part, by performer */
    public function heard(): array
    {
        if ($this->heard !== null) {
            return $this->heard;
        }
        $out = [];
        $parts = [];
        foreach ($this->draft->utterances() as $u) {
            $parts[$u->line->item] = true;
        }
        foreach ($this->draft->utterances() as $u) {
            $to = $this->addressee($u);
            foreach (array_keys($this->draft->lanes()) as $id) {
                $id = (string) $id;
                if ($id !== $u->line->item && ($id === $to || isset($parts[$id])) && $this->isNear($id, $u)) {
                    $out[$id][] = $u;
                }
            }
        }

        return $this->heard = $out;
    }

    private function isNear(string $id, Utterance $u): bool
    {
        $frame = ($u->from + $u->to) / 2;
        [$x, $z] = Gazes::standing($this->draft, $id, $frame);
        [$sx, $sz] = Gazes::standing($this->draft, $u->line->item, $frame);

        return isset($this->draft->lanes()[$u->line->item]) && hypot($x - $sx, $z - $sz) < self::HEARD;
    }
}
