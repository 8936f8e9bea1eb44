<?php

declare(strict_types=1);

namespace CrispReel\Core\Coverage;

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Doing;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Placement;

/**
 * What happens in a span of a scene, as somebody who cuts reads it: who speaks and to whom, who does something, who travels, what
 * changes hands.
 *
 * @phpstan-type Spell array{int, int, string}
 */
final readonly class Action
{
    /** Metres a second from which on somebody travels, and frames that it has to last. */
    public const TRAVELS = 0.3;

    private const LASTS = 24;

    /** Frames between two looks at where people are. */
    private const STEP = 6;

    /** Degrees off the face within which somebody is spoken to. */
    private const SPOKEN_TO = 60.0;

    /**
     * @param  list<string>  $people  who takes part
     * @param  list<Spell>  $lines  spans of speech by speaker
     * @param  list<Spell>  $acts  spans of what else is done
     * @param  list<Spell>  $travels
     * @param  list<array{int, string, string, string}>  $gives  frame, thing, from whom, to whom
     * @param  array<string, string>  $spokenTo  by "first-last-speaker" of a line
     */
    private function __construct(
        public int $from,
        public int $to,
        public array $people,
        public array $lines,
        public array $acts,
        public array $travels,
        public array $gives,
        public array $spokenTo,
    ) {
    }

    /** @param  list<string>  $people  performers */
    public static function of(CompiledScene $scene, AssetSource $assets, array $people, int $from, int $to): self
    {
        $lines = $acts = [];
        foreach ($people as $id) {
            $said = self::said($scene, $id, $from, $to);
            array_push($lines, ...$said);
            foreach ([...$scene->lanes[$id]->segments, ...$scene->lanes[$id]->layers] as $s) {
                $spell = [max($from, (int) floor($s->start)), min($to, (int) ceil($s->end)), $id];
                $kind = $s->isBetween() ? 'does' : Doing::of($assets, $scene->document->assets[$s->from->motion]);
                // Who has words speaks while they are heard, and not for as long as the hands go on.
                if ($spell[1] - $spell[0] < 4 || $kind === 'waits' || ($kind === 'speaks' && $said !== [])) {
                    continue;
                }
                $kind === 'speaks' ? $lines[] = $spell : $acts[] = $spell;
            }
        }
        usort($lines, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $travels = [];
        foreach ($people as $id) {
            array_push($travels, ...self::travels($scene, $id, $from, $to));
        }
        $spokenTo = [];
        foreach ($lines as $line) {
            $whom = self::addressee($scene, $people, $line);
            if ($whom !== null) {
                $spokenTo["{$line[0]}-{$line[1]}-{$line[2]}"] = $whom;
            }
        }

        return new self($from, $to, $people, $lines, $acts, $travels, self::gives($scene, $people, $from, $to), $spokenTo);
    }

    /** @return list<Spell> lines of somebody that are heard in the span */
    private static function said(CompiledScene $scene, string $id, int $from, int $to): array
    {
        $out = [];
        foreach ($scene->utterances as $u) {
            $spell = [max($from, (int) floor($u->from)), min($to, (int) ceil($u->to)), $id];
            if ($u->line->item === $id && $spell[1] - $spell[0] >= 4) {
                $out[] = $spell;
            }
        }

        return $out;
    }

    /** @return list<Spell> */
    private static function travels(CompiledScene $scene, string $id, int $from, int $to): array
    {
        $hips = $scene->lanes[$id]->figure->hips;
        $least = self::TRAVELS * self::STEP / $scene->document->rate->perSecond();
        $out = [];
        $since = $before = null;
        for ($f = $from; $f <= $to; $f += self::STEP) {
            $at = $scene->poses->at($f)->joint($id, $hips)->position;
            $moves = $before !== null && hypot($at[0] - $before[0], $at[2] - $before[2]) > $least;
            if ($moves) {
                $since ??= $f - self::STEP;
            }
            if ($since !== null && (! $moves || $f + self::STEP > $to)) {
                if ($f - $since >= self::LASTS) {
                    $out[] = [$since, min($to, $f), $id];
                }
                $since = null;
            }
            $before = $at;
        }

        return $out;
    }

    /**
     * Whom a face points at over a line, of those who take part.
     *
     * @param  list<string>  $people
     * @param  Spell  $line
     */
    private static function addressee(CompiledScene $scene, array $people, array $line): ?string
    {
        $moment = $scene->poses->at(intdiv($line[0] + $line[1], 2));
        $head = $scene->lanes[$line[2]]->figure->skeleton->roles['head'] ?? null;
        if ($head === null) {
            return null;
        }
        $own = $moment->joint($line[2], $head);
        $ahead = $own->of(new Placement($scene->lanes[$line[2]]->figure->ahead($head)))->position;
        $facing = atan2($ahead[0] - $own->position[0], $ahead[2] - $own->position[2]);
        $best = null;
        $least = deg2rad(self::SPOKEN_TO);
        foreach (array_diff($people, [$line[2]]) as $other) {
            $at = $moment->face($other) ?? $moment->place($other)->position;
            $off = abs(Angle::wrapped(atan2($at[0] - $own->position[0], $at[2] - $own->position[2]) - $facing));
            if ($off < $least) {
                [$best, $least] = [$other, $off];
            }
        }

        return $best;
    }

    /**
     * @param  list<string>  $people
     * @return list<array{int, string, string, string}>
     */
    private static function gives(CompiledScene $scene, array $people, int $from, int $to): array
    {
        $out = [];
        foreach ($scene->carries as $thing => $carries) {
            $before = null;
            foreach ($carries as $c) {
                $within = $c->from >= $from && $c->from < $to;
                if ($within && $c->parent !== $before && array_diff([$c->parent ?? '', $before ?? ''], $people) === []) {
                    $out[] = [$c->from, (string) $thing, (string) $before, (string) $c->parent];
                }
                $before = $c->parent;
            }
        }
        usort($out, static fn (array $a, array $b): int => $a[0] <=> $b[0]);

        return $out;
    }

    /** @return list<array{string, string}> pairs that have to do with each other: who is spoken to, and who is handed something */
    public function pairs(): array
    {
        $out = [];
        foreach ($this->lines as $line) {
            $other = $this->spokenTo["{$line[0]}-{$line[1]}-{$line[2]}"] ?? null;
            if ($other !== null) {
                $pair = [$line[2], $other];
                sort($pair);
                $out[implode(' ', $pair)] ??= [$line[2], $other];
            }
        }
        foreach ($this->gives as [, , $a, $b]) {
            $pair = [$a, $b];
            sort($pair);
            $out[implode(' ', $pair)] ??= [$a, $b];
        }

        return array_values($out);
    }

    /**
     * Spans in which neither of two travels.
     *
     * @return list<array{int, int}>
     */
    public function stations(string $a, string $b): array
    {
        $busy = array_values(array_filter($this->travels, static fn (array $t): bool => $t[2] === $a || $t[2] === $b));
        usort($busy, static fn (array $p, array $q): int => $p[0] <=> $q[0]);
        $out = [];
        $at = $this->from;
        foreach ([...$busy, [$this->to, $this->to, '']] as [$first, $last]) {
            if ($first - $at >= self::LASTS) {
                $out[] = [$at, $first];
            }
            $at = max($at, $last);
        }

        return $out;
    }

    /** Who speaks at a frame; null: nobody. */
    public function speaker(int $frame): ?string
    {
        foreach (array_reverse($this->lines) as [$first, $last, $who]) {
            if ($first <= $frame && $frame < $last) {
                return $who;
            }
        }

        return null;
    }

    /** @return list<string> who does something else at a frame */
    public function doers(int $frame): array
    {
        $out = [];
        foreach ([...$this->acts, ...$this->travels] as [$first, $last, $who]) {
            if ($first <= $frame && $frame < $last) {
                $out[] = $who;
            }
        }

        return array_values(array_unique($out));
    }

    public function travelling(int $frame): bool
    {
        foreach ($this->travels as [$first, $last]) {
            if ($first <= $frame && $frame < $last) {
                return true;
            }
        }

        return false;
    }
}
