<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile\Passes;

use CrispReel\Core\Camera\Aim;
use CrispReel\Core\Camera\Framer;
use CrispReel\Core\Camera\Gate;
use CrispReel\Core\Camera\Marks;
use CrispReel\Core\Camera\Refusal;
use CrispReel\Core\Compile\Draft;
use CrispReel\Core\Compile\FramedCamera;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Compile\Pass;
use CrispReel\Core\Compile\Subjects;
use CrispReel\Core\Compile\Surroundings;
use CrispReel\Core\Document\Camera;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Framing;
use CrispReel\Core\Document\Severity;

/** Cameras that know whom they film: each framing solved at its own frame, once. */
final class Framings implements Pass
{
    /** Metres: low x, low z, high x, high z. */
    private const EVERYWHERE = [-1e6, -1e6, 1e6, 1e6];

    public function settle(Draft $draft): void
    {
        $of = [];
        foreach ($draft->document->framings as $f) {
            $of[$f->camera][] = $f;
        }
        $out = [];
        $subjects = new Subjects($draft->poses(), $draft->document, $draft->assets, $draft->memory);
        $around = new Surroundings($draft->document, $draft->assets, $draft->memory);
        $where = $of === [] ? null : $subjects->where($draft->frames());
        foreach ($of as $id => $framings) {
            $camera = $draft->document->cameras[$id];
            $gate = new Gate($draft->document->width / $draft->document->height, $camera->sensorWidthMm);
            usort($framings, static fn (Framing $a, Framing $b): int => $a->frame <=> $b->frame);
            $stretches = [];
            foreach ($framings as $f) {
                $solved = $draft->memory->of(self::key($draft, $f, $gate), static fn (): Aim|Refusal => self::solve($subjects, $f, $gate));
                if ($solved instanceof Aim) {
                    $stretches[] = [$f, $solved];
                } else {
                    $draft->note(self::refused($draft, $camera, $f, $solved));
                }
            }
            if ($stretches !== [] && $where !== null) {
                $walls = FramedCamera::moves($stretches) ? $around->forLens(self::EVERYWHERE) : null;
                $out[$id] = new FramedCamera($stretches, $gate, $where, $walls, $walls === null ? [] : $around->everything());
            }
        }
        $draft->putFramed($out);
    }

    private static function solve(Subjects $subjects, Framing $f, Gate $gate): Aim|Refusal
    {
        $marks = array_map(static fn (string $id): Marks => $subjects->marks($id, $f->frame), $f->people());

        return Framer::solve($f, $marks[0], array_slice($marks, 1), $gate);
    }

    private static function key(Draft $draft, Framing $f, Gate $gate): string
    {
        $grounds = array_map(
            static fn (string $id): array => $draft->poses()
                ->grounds($id, max(0, $f->frame - Subjects::AROUND), $f->frame + Subjects::AROUND + 1),
            $f->people(),
        );

        $said = array_diff_key($f->toArray(), ['id' => 0, 'camera' => 0]);
        $files = array_map(
            static fn (string $id): string => $draft->document->assets[$draft->document->items[$id]->asset]->blob,
            $f->people(),
        );

        return Memory::key('framing', [$said, $files, $gate->aspect, $gate->sensorWidthMm, $grounds]);
    }

    private static function refused(Draft $draft, Camera $camera, Framing $f, Refusal $refusal): Finding
    {
        $name = $draft->document->items[$f->subject]->name;

        return new Finding(
            'camera.framing', Severity::Harms,
            "Camera {$camera->letter} cannot be framed on {$name} as asked: ".lcfirst($refusal->sentence),
            effect: 'It stands where it stood last.', remedy: 'Choose another angle for it in Cover.', about: [$camera->id],
            frames: [$f->frame, $f->frame],
        );
    }
}
