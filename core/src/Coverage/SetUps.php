<?php

declare(strict_types=1);

namespace CrispReel\Core\Coverage;

use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Framing;
use CrispReel\Core\Math\Angle;

/** What a director may choose from for whom is selected: families of set-ups, each solved at the moment that is looked at. */
final class SetUps
{
    /** Lenses that suit the sizes, mm. */
    private const LENSES = [
        'extremeCloseUp' => 85.0, 'closeUp' => 75.0, 'mediumCloseUp' => 65.0, 'medium' => 50.0, 'threeQuarter' => 40.0, 'full' => 35.0,
        'wide' => 28.0, 'veryWide' => 24.0,
    ];

    public const TITLES = [
        'extremeCloseUp' => 'Extreme close-up', 'closeUp' => 'Close-up', 'mediumCloseUp' => 'Medium close-up', 'medium' => 'Medium shot',
        'threeQuarter' => 'Three-quarter', 'full' => 'Full shot', 'wide' => 'Wide', 'veryWide' => 'Very wide',
    ];

    /** Frames before and after something changes hands in which that is proposed. */
    private const AROUND = 48;

    /** Degrees off the line from which one of two is seen alone, by size. */
    private const ALONE = ['mediumCloseUp' => 32.0, 'closeUp' => 24.0];

    public function __construct(private readonly Stand $stand)
    {
    }

    /**
     * @param  string|null  $partner  with whom it has to do
     * @param  float  $sideDeg  seen from the subject
     * @param  float  $hand  side of the line between the two, by its sign; 0: the one that is kept
     * @param  list<string>  $others  who is filmed with them: a group
     * @return list<Proposal>
     */
    public function of(
        string $subject, ?string $partner, float $sideDeg, string $height, float $hand = 0.0, array $others = [],
    ): array {
        if (! $this->stand->isPerson($subject)) {
            return [...$this->thing($subject, $sideDeg, $height), ...$this->moving($subject, $height)];
        }
        $partner = $partner !== null && $partner !== $subject && $this->stand->isPerson($partner) ? $partner : null;

        $others = array_values(array_filter(array_diff($others, [$subject, $partner]), $this->stand->isPerson(...)));

        return [
            ...$this->group($subject, $partner, $others, $height),
            ...$this->alone($subject, $sideDeg, $height),
            ...($partner === null ? [] : $this->two($subject, $partner, $hand)),
            ...$this->hands($subject),
            ...$this->busyHands($subject, $sideDeg),
            ...$this->moving($subject, $height),
        ];
    }

    /** @return list<Proposal> */
    private function alone(string $subject, float $sideDeg, string $height): array
    {
        $out = [];
        foreach (Framing::SIZES as $size) {
            $out[] = $this->stand->propose('one', self::TITLES[$size], $this->framing($subject, [
                'size' => $size, 'sideDeg' => $sideDeg, 'height' => $height, 'focalMm' => self::LENSES[$size],
            ]));
        }

        return $out;
    }

    /**
     * Three and more as a group: all of them by three sizes from where their faces are seen, from high, and along the row.
     *
     * @param  list<string>  $others
     * @return list<Proposal>
     */
    private function group(string $subject, ?string $partner, array $others, string $height): array
    {
        if ($partner === null || $others === []) {
            return [];
        }
        [$line, $before] = (new Group($this->stand, [$subject, $partner, ...$others]))->headings();
        $out = [];
        foreach ([
            ['All, to the belt', 'medium', 0.0, $height, 40.0], ['All, whole', 'full', 0.0, $height, 35.0],
            ['All, with what is around', 'wide', 0.0, $height, 28.0], ['All, along the row', 'medium', 55.0, $height, 50.0],
            ['All, along the row from the other end', 'medium', -55.0, $height, 50.0], ['All, from high', 'full', 0.0, 'high', 28.0],
        ] as [$title, $size, $aside, $level, $lens]) {
            $side = rad2deg(Angle::wrapped($before - $line)) + $aside;
            $out[] = $this->stand->propose('group', $title, $this->framing($subject, [
                'partner' => $partner, 'others' => $others, 'kind' => 'together', 'size' => $size, 'height' => $level,
                'sideDeg' => rad2deg(Angle::wrapped(deg2rad($side))), 'focalMm' => $lens,
            ]));
        }

        return $out;
    }

    /** @return list<Proposal> of hands that hold or touch something now */
    private function busyHands(string $subject, float $sideDeg): array
    {
        $out = [];
        foreach (['handL' => ['leftHand', 'The left hand'], 'handR' => ['rightHand', 'The right hand']] as $role => [$part, $title]) {
            if ($this->stand->isBusy($subject, $role) && $this->stand->marks($subject)->hand($part) !== []) {
                $out[] = $this->stand->propose('hands', $title, $this->framing($subject, [
                    'size' => 'mediumCloseUp', 'sideDeg' => $sideDeg, 'height' => 'high', 'focalMm' => 65.0, 'part' => $part,
                ]));
            }
        }

        return $out;
    }

    /** @return list<Proposal> */
    private function thing(string $subject, float $sideDeg, string $height): array
    {
        $out = [];
        foreach (['closeUp' => 'Detail', 'threeQuarter' => 'All of it', 'wide' => 'With what is around'] as $size => $title) {
            $out[] = $this->stand->propose('thing', $title, $this->framing($subject, [
                'size' => $size, 'sideDeg' => $sideDeg, 'height' => $height === 'level' ? 'high' : $height, 'focalMm' => 50.0,
            ]));
        }

        return $out;
    }

    /** @return list<Proposal> */
    private function two(string $a, string $b, float $hand): array
    {
        $kept = self::kept($this->stand->scene->document, $a, $b);
        $hand = match (true) {
            $hand !== 0.0 => $hand < 0 ? -1.0 : 1.0,
            default => $kept ?? $this->stand->side($this->framing($a, ['partner' => $b])),
        };
        $crosses = $kept !== null && $kept !== $hand;
        $out = [];
        foreach ([[$a, $b, $hand], [$b, $a, -$hand]] as [$s, $l, $side]) {
            $title = "Over {$this->stand->name($l)}, on {$this->stand->name($s)}";
            $out[] = [$title, $s, $l, ['kind' => 'overShoulder', 'sideDeg' => 30.0 * $side]];
        }
        $out[] = ['Both, to the belt', $a, $b, ['kind' => 'together', 'size' => 'medium', 'sideDeg' => 90.0 * $hand, 'focalMm' => 40.0]];
        $out[] = ['Both, whole', $a, $b, ['kind' => 'together', 'size' => 'full', 'sideDeg' => 90.0 * $hand, 'focalMm' => 35.0]];
        foreach (self::ALONE as $size => $off) {
            foreach ([[$a, $b, $hand], [$b, $a, -$hand]] as [$s, $l, $side]) {
                $out[] = [
                    "{$this->stand->name($s)} alone, ".lcfirst(self::TITLES[$size]), $s, $l,
                    ['size' => $size, 'sideDeg' => $off * $side, 'focalMm' => self::LENSES[$size]],
                ];
            }
        }

        return array_map(function (array $o) use ($crosses): Proposal {
            $p = $this->stand->propose('two', $o[0], $this->framing($o[1], ['partner' => $o[2]] + $o[3]));

            return new Proposal($p->family, $p->title, $p->framing, $p->view, $p->says, $crosses);
        }, $out);
    }

    /**
     * What somebody hands over or is handed about now: the thing from near, and both down to it.
     *
     * @return list<Proposal>
     */
    private function hands(string $subject): array
    {
        $out = [];
        foreach ($this->stand->scene->carries as $thing => $carries) {
            $before = null;
            foreach ($carries as $c) {
                [$giver, $taker] = [$before, $c->parent];
                $before = $c->parent;
                $isPair = $giver !== null && $taker !== null && $giver !== $taker && in_array($subject, [$giver, $taker], true)
                    && $this->stand->isPerson($giver) && $this->stand->isPerson($taker);
                if ($isPair && abs($c->from - $this->stand->frame) <= self::AROUND) {
                    array_push($out, ...$this->handOver((string) $thing, $giver, $taker));
                }
            }
        }

        return $out;
    }

    /** @return list<Proposal> */
    private function handOver(string $thing, string $giver, string $taker): array
    {
        [$p, $q] = [$this->stand->marks($giver)->middle('eyes'), $this->stand->marks($taker)->middle('eyes')];
        $hand = self::kept($this->stand->scene->document, $giver, $taker)
            ?? $this->stand->side($this->framing($giver, ['partner' => $taker]));
        $line = rad2deg(atan2($q[0] - $p[0], $q[2] - $p[2]) - $this->stand->marks($thing)->facing);
        // Seen from where the camera on both stands.
        $side = fmod($line + 63.0 * $hand + 900.0, 360.0) - 180.0;
        $name = $this->stand->name($thing);
        $out = [];
        foreach (['full' => ["{$name}, hand to hand", 65.0], 'closeUp' => ["{$name}, from near", 85.0]] as $size => [$title, $lens]) {
            $out[] = $this->stand->propose('hands', $title, $this->framing($thing, [
                'size' => $size, 'sideDeg' => $side, 'height' => 'high', 'focalMm' => $lens,
            ]));
        }
        $out[] = $this->stand->propose('hands', 'Both, down to the hands', $this->framing($giver, [
            'partner' => $taker, 'kind' => 'together', 'size' => 'threeQuarter', 'sideDeg' => 80.0 * $hand, 'focalMm' => 50.0,
        ]));

        return $out;
    }

    /** @return list<Proposal> */
    private function moving(string $subject, string $height): array
    {
        if (! $this->travels($subject)) {
            return [];
        }
        $out = [];
        foreach ([
            ['Goes ahead of', 'follow', 20.0, 'threeQuarter', 40.0], ['Goes beside', 'follow', 75.0, 'full', 35.0],
            ['Goes behind', 'follow', 165.0, 'threeQuarter', 40.0], ['Turns with', 'turn', 60.0, 'full', 50.0],
        ] as [$words, $keep, $side, $size, $lens]) {
            $out[] = $this->stand->propose('moving', "{$words} {$this->stand->name($subject)}", $this->framing($subject, [
                'size' => $size, 'sideDeg' => $side, 'height' => $height, 'focalMm' => $lens, 'keep' => $keep,
            ]));
        }

        return $out;
    }

    private function travels(string $subject): bool
    {
        $lane = $this->stand->scene->lanes[$subject] ?? null;
        $at = function (int $frame) use ($subject, $lane): array {
            $moment = $this->stand->scene->poses->at(max(0, $frame));

            return $lane === null ? $moment->place($subject)->position : $moment->joint($subject, $lane->figure->hips)->position;
        };
        [$a, $b] = [$at($this->stand->frame), $at($this->stand->frame + 12)];

        return hypot($b[0] - $a[0], $b[2] - $a[2]) > Action::TRAVELS * 12 / $this->stand->scene->document->rate->perSecond();
    }

    /** The side of the line between two that cameras so far keep to, seen from the first; null: none films them. */
    public static function kept(Document $document, string $a, string $b): ?float
    {
        foreach ($document->framings as $f) {
            if ($f->sideDeg !== 0.0 && in_array([$f->subject, $f->partner], [[$a, $b], [$b, $a]], true)) {
                // A picture of both is seen from the same side whoever is named first; seen from the other one, left is right.
                return ($f->sideDeg < 0 ? -1.0 : 1.0) * ($f->subject === $a ? 1.0 : -1.0);
            }
        }

        return null;
    }

    /** @param  array<string, mixed>  $values */
    private function framing(string $subject, array $values): Framing
    {
        return Tries::with(new Framing('f0', 'c0', $subject, frame: $this->stand->frame), $values);
    }
}
