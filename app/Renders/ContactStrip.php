<?php

declare(strict_types=1);

namespace App\Renders;

use App\Exceptions\UserError;
use App\Models\RenderJob;
use App\Models\Scene;
use App\Scenes\DocumentBuilder;
use App\Scenes\SceneStream;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Math\Q4;

/** Frames of a scene side by side in one picture, drawn by the ordinary renderer. */
final class ContactStrip
{
    public const MOST = 120;

    private const LABEL = 15;

    public function __construct(
        private readonly RenderDesk $desk,
        private readonly FramePainter $painter,
        private readonly FrameStore $frames,
        private readonly SceneStream $stream,
    ) {
    }

    /**
     * @param  array{camera?: string, at?: list<float>, look?: list<float>, focal?: float}  $view  a camera by letter, or a place and what
     *   it looks at; else what is cut
     * @return array{string, list<int>} PNG and its frames
     */
    public function draw(Scene $scene, int $from, int $to, int $every, int $width, int $height, int $columns, array $view): array
    {
        $document = $this->seen(DocumentBuilder::build($scene), $view);
        $last = $this->stream->compileDocument($document)->frames - 1;
        if ($from < 0 || $from > $to || $every < 1) {
            throw new UserError(
                'strip.range',
                "Frames {$from} to {$to}, each {$every}, are no strip.",
                'Give a first frame, a later last frame and a step of at least 1.',
            );
        }
        $wanted = range($from, max($from, min($to, $last)), $every);
        if (count($wanted) > self::MOST) {
            throw new UserError(
                'strip.many',
                sprintf('%d frames are too many for one strip.', count($wanted)),
                'Take a shorter range or a larger step; '.self::MOST.' fit.',
            );
        }
        $job = $this->desk->create($document, $scene->id, null, $from, end($wanted) + 1, $width, $height, 'png', 'draft', 'strip.png');
        try {
            $this->painter->paint($job, $wanted, static fn (): bool => true);

            return [$this->joined($job, $wanted, $width, $height, max(1, $columns), $document), $wanted];
        } finally {
            $this->frames->clear($job);
            $job->chunks()->delete();
            $job->delete();
        }
    }

    /** @param  array{camera?: string, at?: list<float>, look?: list<float>, focal?: float}  $view */
    private function seen(Document $document, array $view): Document
    {
        $d = (array) json_decode($document->toJson(), true);
        $letter = $view['camera'] ?? null;
        if (isset($view['at'], $view['look'])) {
            $letter = 'ZZZ';
            $d['cameras'] = [...(is_array($d['cameras']) ? array_values($d['cameras']) : []), [
                'id' => 'strip', 'letter' => $letter, 'name' => '',
                'keys' => [[
                    'frame' => 0,
                    'position' => $view['at'],
                    'rotation' => Q4::lookAt(
                        [$view['at'][0], $view['at'][1], $view['at'][2]],
                        [$view['look'][0], $view['look'][1], $view['look'][2]],
                    ),
                    'focalMm' => $view['focal'] ?? 35.0,
                    'fStop' => 16.0,
                ]],
            ]];
        }
        if ($letter !== null) {
            foreach (Document::fromArray(['shots' => []] + $d)->cameras as $camera) {
                if ($camera->letter === $letter) {
                    return Document::fromArray(['shots' => [[
                        'id' => 'strip', 'camera' => $camera->id, 'in' => 0, 'out' => null, 'label' => 'strip',
                    ]]] + $d);
                }
            }
            throw new UserError('strip.camera', "There is no camera \"{$letter}\".", 'Give the letter of a camera of this scene.');
        }
        if ($document->shots === []) {
            throw new UserError('render.no-camera', 'There is no camera on the reel yet.', 'Give --camera, or --at and --look.');
        }

        return $document;
    }

    /** @param  non-empty-list<int>  $wanted */
    private function joined(RenderJob $job, array $wanted, int $width, int $height, int $columns, Document $document): string
    {
        $columns = min($columns, count($wanted));
        $rows = (int) ceil(count($wanted) / $columns);
        $sheet = imagecreatetruecolor(max(1, $columns * ($width + 2)), max(1, $rows * ($height + self::LABEL)));
        imagefill($sheet, 0, 0, (int) imagecolorallocate($sheet, 251, 249, 244));
        $ink = (int) imagecolorallocate($sheet, 42, 38, 34);
        foreach ($wanted as $i => $frame) {
            $picture = imagecreatefromstring($this->frames->read($job, $frame));
            if ($picture === false) {
                continue;
            }
            [$x, $y] = [($i % $columns) * ($width + 2), intdiv($i, $columns) * ($height + self::LABEL)];
            imagecopy($sheet, $picture, $x, $y + self::LABEL, 0, 0, $width, $height);
            imagestring($sheet, 2, $x + 3, $y, sprintf('%d   %s', $frame, $document->rate->timecode($frame)), $ink);
        }
        ob_start();
        imagepng($sheet);

        return (string) ob_get_clean();
    }
}
