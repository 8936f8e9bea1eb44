<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Camera\Landmarks;
use CrispReel\Core\Camera\Marks;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/** Whom cameras film: people by landmarks of their drawn surface, things by the box around them, at any frame. */
final class Subjects
{
    /** Frames before and after over which the way that somebody faces is taken: a head that nods aside moves no camera. */
    public const AROUND = 12;

    public function __construct(
        private readonly Poses $poses,
        private readonly Document $document,
        private readonly AssetSource $assets,
        private readonly Memory $memory,
    ) {
    }

    public function marks(string $item, int $frame): Marks
    {
        if (! $this->isPerson($item)) {
            $place = $this->poses->at($frame)->place($item);

            return Marks::ofThing($place, $this->bounds($item), Q4::heading($place->rotation));
        }
        $marks = $this->posed($item, $frame);
        $sum = [sin($marks->facing), cos($marks->facing)];
        foreach ([-1.0, -0.5, 0.5, 1.0] as $share) {
            $other = $this->posed($item, max(0, $frame + (int) ($share * self::AROUND)), [])->facing;
            $sum = [$sum[0] + sin($other), $sum[1] + cos($other)];
        }

        return $marks->turned(atan2($sum[0], $sum[1]));
    }

    /** Somebody at one moment by the face alone: eyes, skull and chin; the joints are all there. */
    public function face(string $item, int $frame): Marks
    {
        return $this->isPerson($item) ? $this->posed($item, $frame, ['eyes', 'skull', 'chin']) : $this->marks($item, $frame);
    }

    /** Whether it has a head; a cart with wheels that turn has joints, too. */
    public function isPerson(string $item): bool
    {
        return isset($this->poses->lanes[$item]->figure->skeleton->roles['head']);
    }

    /** @param  list<string>|null  $only  marks that are wanted; null: all */
    private function posed(string $item, int $frame, ?array $only = null): Marks
    {
        $figure = $this->poses->lanes[$item]->figure;
        $moment = $this->poses->at($frame);
        $asset = $this->document->assets[$this->document->items[$item]->asset];
        $landmarks = $this->memory->of("landmarks {$asset->blob}", fn (): Landmarks => Landmarks::of($figure, $this->assets, $asset));

        return $landmarks->posed($figure, $moment->place($item), $moment->row($item), $only);
    }

    public function where(int $frames): Whereabouts
    {
        $middles = [];
        foreach ($this->document->items as $id => $_) {
            if (! $this->isPerson($id)) {
                $middles[$id] = V3::mix(...[...$this->bounds($id), 0.5]);
            }
        }

        return new Whereabouts($this->poses, $this->memory, $frames, $middles);
    }

    /** @return array{array{float, float, float}, array{float, float, float}} */
    private function bounds(string $item): array
    {
        $digest = $this->assets->digest($this->document->assets[$this->document->items[$item]->asset]);

        /** @var array{array{float, float, float}, array{float, float, float}} */
        return $digest['bounds'] ?? [[-0.1, 0.0, -0.1], [0.1, 0.2, 0.1]];
    }
}
