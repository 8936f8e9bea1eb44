<?php

declare(strict_types=1);

namespace CrispReel\Core\Coverage;

use CrispReel\Core\Camera\Aim;
use CrispReel\Core\Camera\Gate;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\FramedCamera;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Command;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Framing;
use CrispReel\Core\Document\Mend;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Document\Shot;
use CrispReel\Core\Math\Q4;

/**
 * What cameras that know whom they film lose on the reel: somebody or something comes before a face, a face leaves the picture, a lens
 * stands in something. Told once for each stretch of frames, with a mend where there is one.
 */
final class Lookout
{
    /** Frames between two looks, and what has to last to be told. */
    private const STEP = 6;

    private const LEAST = 12;

    /** What leaves the picture, in words. */
    private const PARTS = ['leftHand' => 'left hand', 'rightHand' => 'right hand'];

    /** @var array<int, Stand> */
    private array $stands = [];

    public function __construct(
        private readonly CompiledScene $scene, private readonly AssetSource $assets, private readonly Memory $memory,
    ) {
    }

    /** @return list<Finding> in the order of their frames */
    public function findings(): array
    {
        $out = [];
        foreach ($this->scene->shots as $shot) {
            $framed = $this->scene->framed[$shot->camera] ?? null;
            array_push($out, ...($framed === null ? [] : $this->ofShot($shot, $framed)));
        }

        return $out;
    }

    /** @return list<Finding> */
    private function ofShot(Shot $shot, FramedCamera $framed): array
    {
        $out = [];
        $open = [];
        $end = (int) $shot->out;
        for ($f = $shot->in; ; $f = min($end, $f + self::STEP)) {
            $now = $f < $end ? $this->troubles($framed, $f) : [];
            foreach (array_diff_key($open, $now) as $key => [$kind, $what, $from]) {
                if ($f - $from >= self::LEAST) {
                    $out[] = $this->finding($shot, $framed, $kind, $what, $from, $f);
                }
                unset($open[$key]);
            }
            foreach ($now as $key => [$kind, $what]) {
                $open[$key] ??= [$kind, $what, $f];
            }
            if ($f >= $end) {
                return $out;
            }
        }
    }

    /** @return array<string, array{string, string}> kind and what it is, by both */
    private function troubles(FramedCamera $framed, int $frame): array
    {
        $framing = $framed->framing($frame);
        $stand = $this->stand($frame);
        if (! $stand->isPerson($framing->subject) || $frame < $framing->frame + $framing->over && $framing->over > 0) {
            return [];
        }
        $pose = $framed->at($frame);
        [$x, $y, $depth] = $pose->project($this->watched($stand, $framing), $this->aspect());
        if ($depth <= 0.0 || abs($x) > 1.0 || abs($y) > 1.0) {
            return ['lost' => ['lost', '']];
        }
        if ($framing->part !== 'face' && $framing->kind === 'single') {
            return [];
        }
        $axis = Q4::rotate($pose->rotation, [0.0, 0.0, -1.0]);
        $aim = new Aim($pose->position, atan2($axis[0], $axis[2]), asin(max(-1.0, min(1.0, $axis[1]))), $pose->focalMm);
        [$hides, $crowds] = $stand->trouble($aim, $framing->subject, []);
        $out = [];
        foreach (['blocked' => $hides, 'inside' => $crowds] as $kind => $what) {
            if ($what !== null) {
                $out["{$kind} {$what}"] = [$kind, $what];
            }
        }

        return $out;
    }

    private function finding(Shot $shot, FramedCamera $framed, string $kind, string $what, int $from, int $to): Finding
    {
        $middle = intdiv($from + $to, 2);
        $framing = $framed->framing($middle);
        $letter = $this->scene->document->cameras[$shot->camera]->letter;
        $who = $this->stand($from)->name($framing->subject);
        $whose = $framing->kind === 'single' ? self::PARTS[$framing->part] ?? '' : '';
        $whose = $whose === '' ? $who : "{$who}'s {$whose}";
        [$sentence, $remedy] = match ($kind) {
            'lost' => ["{$whose} leaves the picture of camera {$letter}.", 'Let the camera turn with them, or go wider.'],
            'blocked' => [
                "{$what} is before {$who}'s face in camera {$letter}.", 'Take another side or height in Cover, or move one of them.',
            ],
            default => ["Camera {$letter} stands in or at {$what}.", 'Take another side or a shorter lens in Cover.'],
        };

        return new Finding(
            "camera.{$kind}", Severity::Look, $sentence, remedy: $remedy, about: [$shot->camera, $framing->subject],
            frames: [$from, max($from, $to - 1)], mends: $this->mends($kind, $framing, $who, $middle),
        );
    }

    /** @return array{float, float, float} what is to stay in the picture */
    private function watched(Stand $stand, Framing $f): array
    {
        return $f->part === 'face' || $f->kind !== 'single'
            ? $stand->face($f->subject)->middle('eyes')
            : $stand->marks($f->subject)->part($f->part);
    }

    /** @return list<Mend> */
    private function mends(string $kind, Framing $f, string $who, int $frame): array
    {
        if ($kind === 'lost') {
            $turn = new Command('framing.set', ['framing' => $f->id, 'keep' => 'turn']);

            return $f->keep === 'still' ? [new Mend("Let it turn with {$who}", [$turn])] : [];
        }
        $free = $this->stand($frame)->propose('', '', $f);
        if ($free->view === null || $free->framing == $f) {
            return [];
        }
        $changes = array_intersect_key($free->framing->toArray(), array_flip(['sideDeg', 'height', 'focalMm', 'room', 'size']));

        return [new Mend('Take a free place near it', [new Command('framing.set', ['framing' => $f->id] + $changes)])];
    }

    private function stand(int $frame): Stand
    {
        return $this->stands[$frame] ??= new Stand($this->scene, $this->assets, $this->memory, $frame, new Gate($this->aspect()));
    }

    private function aspect(): float
    {
        return $this->scene->document->width / $this->scene->document->height;
    }
}
