<?php

declare(strict_types=1);

namespace App\Isolation;

use App\Exceptions\UserError;
use Illuminate\Support\Facades\File;
use Symfony\Component\Process\Exception\ProcessSignaledException;
use Symfony\Component\Process\Exception\ProcessTimedOutException;
use Symfony\Component\Process\Process;

/**
 * Where programs that read people's files run (bubblewrap): they see the system's programs, one folder of their own and nothing
 * else, have no network and no settings of ours, and limits of time, memory and file size. Where the box cannot be made, they
 * do not run.
 */
final class Box
{
    private static ?bool $works = null;

    /** A box of no use would be worse than none, so one is tried, once a process. */
    public static function isThere(): bool
    {
        if (self::$works === null || config('reel.box') === false) {
            $bwrap = self::bwrap();
            if (config('reel.box') === false || ! is_file($bwrap)) {
                return self::$works = false;
            }
            $try = new Process([...self::walls($bwrap, null), '/usr/bin/true'], null, null, null, 10);
            self::$works = $try->run() === 0;
        }

        return self::$works;
    }

    /** Forgets what was tried; for tests. */
    public static function forget(): void
    {
        self::$works = null;
    }

    /**
     * Runs a program on files.
     *
     * @param  list<string>  $command  program and arguments; files by their names in the folder
     * @param  array<string, string>  $files  relative name to bytes, laid out before
     * @param  list<string>  $wanted  files to bring back
     */
    public static function run(array $command, array $files, array $wanted = [], ?BoxLimits $limits = null): BoxResult
    {
        $folder = sys_get_temp_dir().'/reel-box-'.bin2hex(random_bytes(8));
        mkdir($folder, 0o700);
        try {
            foreach ($files as $name => $bytes) {
                is_dir(dirname("{$folder}/{$name}")) || mkdir(dirname("{$folder}/{$name}"), 0o700, true);
                if (file_put_contents("{$folder}/{$name}", $bytes) !== strlen($bytes)) {
                    throw new UserError('box.room', 'There is no room on the disk to read it.', 'Free some disk space and try again.', 507);
                }
            }
            $result = self::in($folder, $command, $limits ?? new BoxLimits);
            $back = [];
            foreach ($wanted as $name) {
                $file = "{$folder}/{$name}";
                // A link that a program may have left there leads out of the folder, and is not followed.
                if (is_file($file) && ! is_link($file)) {
                    $back[$name] = (string) file_get_contents($file);
                }
            }

            return $result->with($back);
        } finally {
            File::deleteDirectory($folder);
        }
    }

    /**
     * Runs a program with a folder that is there already as its only one.
     *
     * @param  list<string>  $command
     */
    public static function in(string $folder, array $command, BoxLimits $limits): BoxResult
    {
        if (! self::isThere()) {
            throw self::missing();
        }
        $process = new Process([
            ...self::walls(self::bwrap(), $folder), '/usr/bin/prlimit', '--as='.$limits->memoryBytes, '--cpu='.$limits->cpuSeconds,
            '--fsize='.$limits->fileBytes, '--core=0', '--', ...$command,
        ], null, null, null, $limits->wallSeconds);
        $output = '';
        try {
            $code = $process->run(static function (string $kind, string $part) use (&$output, $limits): void {
                if ($kind === Process::OUT && strlen($output) < $limits->outputBytes) {
                    $output .= $part;
                }
            });

            return new BoxResult($code, $output, false);
        } catch (ProcessTimedOutException) {
            return new BoxResult(124, $output, true);
        } catch (ProcessSignaledException) {
            return new BoxResult(137, $output, false);
        }
    }

    public static function missing(): UserError
    {
        return new UserError(
            'box.missing',
            'Files of this kind are not read on this installation, because its programs cannot be shut off from the rest of the machine.',
            'Bring models as GLB and motions as BVH, or ask who runs it to install bubblewrap.',
            503,
        );
    }

    private static function bwrap(): string
    {
        $path = config('reel.bwrap');

        return is_string($path) ? $path : '/usr/bin/bwrap';
    }

    /** @return list<string> */
    private static function walls(string $bwrap, ?string $folder): array
    {
        return [
            $bwrap, '--unshare-all', '--die-with-parent', '--new-session', '--ro-bind', '/usr', '/usr', '--ro-bind-try',
            '/etc/alternatives', '/etc/alternatives',
            '--ro-bind-try', '/etc/ld.so.cache', '/etc/ld.so.cache', '--symlink', 'usr/lib', '/lib', '--symlink', 'usr/lib64', '/lib64',
            '--symlink', 'usr/bin', '/bin',
            '--proc', '/proc', '--dev', '/dev', '--tmpfs', '/tmp',
            ...($folder === null ? [] : ['--bind', $folder, '/work', '--chdir', '/work']),
            '--uid', '65534', '--gid', '65534', '--hostname', 'box', '--clearenv', '--setenv', 'PATH', '/usr/bin', '--setenv', 'HOME',
            '/tmp', '--setenv', 'LANG', 'C.UTF-8',
        ];
    }
}
