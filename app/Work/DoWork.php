<?php

declare(strict_types=1);

namespace App\Work;

use App\Assets\BlobStore;
use App\Models\User;
use App\Models\Work;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Debug\ExceptionHandler;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Http\Request;
use Illuminate\Http\UploadedFile;
use Illuminate\Queue\InteractsWithQueue;
use Illuminate\Routing\Router;
use Illuminate\Support\Facades\Facade;
use Symfony\Component\HttpFoundation\Response;
use Throwable;

/** Carries out a request that was written down, for the person who made it, and keeps the answer for them. */
final class DoWork implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 2;

    public int $timeout = 110;

    public function __construct(public readonly string $workId, public readonly int $person)
    {
    }

    public function handle(Router $router, ExceptionHandler $errors, BlobStore $blobs): void
    {
        $work = Work::query()->find($this->workId);
        $user = User::query()->find($this->person);
        if ($work === null || $user === null || $work->status === 'done') {
            return;
        }
        $work->update(['status' => 'working']);
        [$request, $temporary] = $this->request($work, $blobs);
        $before = app()->bound('request') ? app('request') : null;
        app()->instance('request', $request);
        Facade::clearResolvedInstance('request');
        // After it is bound: binding gives it the web's own resolver, which knows sessions only.
        $request->setUserResolver(static fn () => $user);
        try {
            $response = $this->answer($router, $request);
        } catch (Throwable $e) {
            $errors->report($e);
            $response = $errors->render($request, $e);
        } finally {
            array_map(unlink(...), $temporary);
            if ($before !== null) {
                app()->instance('request', $before);
                Facade::clearResolvedInstance('request');
            }
        }
        $work->update(['status' => 'done', 'code' => $response->getStatusCode(), 'answer' => (string) $response->getContent()]);
    }

    /** The route's controller, without what stands at the door: who asked has passed it already. */
    private function answer(Router $router, Request $request): Response
    {
        $route = $router->getRoutes()->match($request);
        $request->setRouteResolver(static fn () => $route);
        $router->substituteBindings($route);
        $router->substituteImplicitBindings($route);

        return Router::toResponse($request, $route->run());
    }

    /** @return array{Request, list<string>} and files to remove afterwards */
    private function request(Work $work, BlobStore $blobs): array
    {
        $files = $temporary = [];
        foreach ($work->files as $field => $file) {
            $place = $temporary[] = (string) tempnam(sys_get_temp_dir(), 'reelwork');
            file_put_contents($place, $blobs->get($file['blob']));
            $files[$field] = new UploadedFile($place, $file['name'], null, UPLOAD_ERR_OK, true);
        }
        $body = json_decode($work->body, true);
        $form = $files === [] ? [] : (is_array($body) ? $body : []);
        $request = Request::create(
            $work->uri, $work->method, $form, [], $files,
            ['HTTP_ACCEPT' => 'application/json'] + ($files === [] ? ['CONTENT_TYPE' => 'application/json'] : []),
            $files === [] ? $work->body : null,
        );

        return [$request, $temporary];
    }

    public function failed(): void
    {
        Work::query()->whereKey($this->workId)->where('status', '!=', 'done')
            ->update(['status' => 'done', 'code' => 422, 'answer' => (string) json_encode([
                'reason' => 'work.stopped', 'message' => 'It took too long or needed too much memory, and was stopped.',
                'remedy' => 'Try it with a simpler file; nothing was changed.',
            ])]);
    }
}
