<?php

declare(strict_types=1);

namespace App\Renders;

/** What a render is taken away as: a film in one of two wrappers, its pictures in a zip, its sound, or that by lanes in a zip. */
enum FilmFormat: string
{
    case Mp4 = 'mp4';
    case WebM = 'webm';
    case Pictures = 'png';
    case Sound = 'wav';
    case Stems = 'stems';

    public static function of(mixed $asked): self
    {
        return self::tryFrom(is_string($asked) ? $asked : '') ?? self::Mp4;
    }

    public function isFilm(): bool
    {
        return in_array($this, [self::Mp4, self::WebM], true);
    }

    /** Whether frames are drawn for it. */
    public function isSeen(): bool
    {
        return $this->isFilm() || $this === self::Pictures;
    }

    public function ending(): string
    {
        return in_array($this, [self::Pictures, self::Stems], true) ? 'zip' : $this->value;
    }

    public function mime(): string
    {
        return match ($this) {
            self::Mp4 => 'video/mp4', self::WebM => 'video/webm', self::Sound => 'audio/wav',
            default => 'application/zip',
        };
    }

    /** @return list<string> how ffmpeg encodes pictures of it */
    public function pictures(): array
    {
        return match ($this) {
            self::WebM => [
                '-c:v', 'libvpx-vp9', '-threads', '2', '-row-mt', '1', '-deadline', 'good', '-cpu-used', '5', '-crf', '24', '-b:v', '0',
            ],
            default => ['-c:v', 'libx264', '-threads', '2', '-preset', 'medium', '-crf', '16', '-bf', '0'],
        };
    }

    /** @return list<string> how ffmpeg encodes its sound */
    public function sound(): array
    {
        return $this === self::WebM ? ['-c:a', 'libopus', '-b:a', '160k'] : ['-c:a', 'aac', '-b:a', '192k'];
    }

    /** @return list<string> what its wrapper is told of time and order */
    public function wrapper(bool $whole): array
    {
        return match (true) {
            $this === self::WebM => [], $whole => ['-video_track_timescale', '240000', '-movflags', '+faststart'],
            default => ['-video_track_timescale', '240000'],
        };
    }
}
