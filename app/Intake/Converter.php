<?php

declare(strict_types=1);

namespace App\Intake;

use App\Exceptions\UserError;
use Illuminate\Support\Facades\File;
use Symfony\Component\Process\Exception\ProcessSignaledException;
use Symfony\Component\Process\Exception\ProcessTimedOutException;
use Symfony\Component\Process\Process;

/**
 * Other model formats to GLB by the Open Asset Import Library's command, in a folder of its own and within limits of time,
 * memory and file size.
 */
final class Converter
{
    private const MOST_SECONDS = 100;

    private const MEMORY = 3 * 1024 ** 3;

    public function toGlb(FileMap $files, string $head, string $bytes): string
    {
        $ending = FileKinds::ending($head);
        // A small file that takes long is a broken one.
        $seconds = min(self::MOST_SECONDS, 7 + 4 * intdiv(strlen($bytes), 1 << 20));
        $folder = sys_get_temp_dir().'/reel-'.bin2hex(random_bytes(8));
        mkdir($folder, 0o700);
        try {
            // Our own names for what it opens; companions under theirs, made plain.
            file_put_contents("{$folder}/arrival.{$ending}", $bytes);
            $this->layOut($files, $head, $folder);
            $process = new Process([
                'prlimit', '--as='.self::MEMORY, '--cpu='.$seconds, '--fsize='.(1 << 30), '--', $this->command(), 'export', "arrival.{$ending}", 'out.glb', '-fglb2', '-tri', '-gsn', '-jiv', '-slm',
            ], $folder, ['PATH' => '/usr/bin:/bin', 'HOME' => $folder], null, $seconds);
            try {
                $process->run();
            } catch (ProcessTimedOutException) {
                throw new UserError('convert.slow', "Reading it took more than {$seconds} seconds.", 'Simplify the model, or export it as GLB.');
            } catch (ProcessSignaledException) {
                throw new UserError('convert.failed', sprintf('It is damaged: reading it as %s broke off.', strtoupper($ending)), 'Export it again, best as GLB.');
            }
            $out = "{$folder}/out.glb";
            if (! is_file($out) || filesize($out) < 20) {
                throw new UserError('convert.failed', sprintf('It cannot be read as %s.%s', strtoupper($ending), $this->said($process->getOutput().$process->getErrorOutput())), 'Export it again, best as GLB.');
            }

            return (string) file_get_contents($out);
        } finally {
            File::deleteDirectory($folder);
        }
    }

    private function layOut(FileMap $files, string $head, string $folder): void
    {
        $from = str_contains($head, '/') ? dirname($head).'/' : '';
        $budget = 200;
        foreach ($files->files as $path => $blob) {
            $ending = FileKinds::ending($path);
            if ($path === $head || $budget-- <= 0 || ! (FileKinds::isPicture($path) || in_array($ending, FileKinds::COMPANIONS, true))) {
                continue;
            }
            $name = FileMap::plain($from !== '' && str_starts_with($path, $from) ? substr($path, strlen($from)) : basename($path));
            if ($name === '' || $name === 'out.glb' || str_starts_with($name, 'arrival.')) {
                continue;
            }
            is_dir(dirname("{$folder}/{$name}")) || mkdir(dirname("{$folder}/{$name}"), 0o700, true);
            file_put_contents("{$folder}/{$name}", ($files->companionOf($head))($path) ?? '');
        }
    }

    private function command(): string
    {
        $command = config('reel.assimp');

        return is_string($command) ? $command : 'assimp';
    }

    /** The library's own reason, if it gave a short one. */
    private function said(string $output): string
    {
        foreach (preg_split('/\R/', $output) ?: [] as $line) {
            if (preg_match('/(?:ERROR|error)[:, ]+(.{4,160})/', $line, $m) === 1) {
                return ' '.rtrim(ucfirst(preg_replace('#/\S+/#', '', trim($m[1])) ?? ''), '.').'.';
            }
        }

        return '';
    }
}
