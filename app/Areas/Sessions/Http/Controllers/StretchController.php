<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use LucidStep\App\Areas\Sessions\Actions\SaveRepro;
use LucidStep\App\Areas\Sessions\Data\ReproDetail;
use LucidStep\App\Areas\Sessions\Data\StretchDetail;
use LucidStep\App\Areas\Sessions\Http\Requests\ReproRequest;
use LucidStep\App\Areas\Sessions\Http\Requests\TryReproRequest;
use LucidStep\App\Areas\Sessions\Queries\ReadRepro;
use LucidStep\App\Areas\Sessions\Queries\ReadStretch;
use LucidStep\App\Models\SessionLine;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Http\StampRequest;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\App\Support\OpenApi\Put;
use LucidStep\Core\Access\Permission;

/**
 * What led to a line of a session, and what is made of it. A defect of it is filed as every other.
 */
final readonly class StretchController
{
    public function __construct(private SaveRepro $save, private ReadRepro $read) {}

    #[
        Get(
            '/session-lines/{sessionLine}/stretch',
            'What led to it, and what of that is proposed to stay',
            StretchDetail::class,
            query: ['from' => 'The line to begin with', 'before' => 'So many lines before that too, at most 500'],
        ),
    ]
    #[Needs(Permission::SeeEvidence)]
    public function show(Request $request, SessionLine $sessionLine, ReadStretch $read): JsonResponse
    {
        $before = max(0, min(500, (int) $request->query->getString('before')));

        return new JsonResponse($read($sessionLine, $request->query->getString('from'), $before));
    }

    #[Put('/session-lines/{sessionLine}/repro', 'Keep what leads to it', ReproDetail::class, ReproRequest::class)]
    #[Needs(Permission::Record)]
    public function save(ReproRequest $request, SessionLine $sessionLine): JsonResponse
    {
        $this->save->save($sessionLine, $request->person(), $request->steps(), $request->integer('version'));

        return $this->answer($sessionLine);
    }

    #[
        Post(
            '/session-lines/{sessionLine}/repro/tries',
            'Say whether it showed when that was walked again',
            ReproDetail::class,
            TryReproRequest::class,
            201,
        ),
    ]
    #[Needs(Permission::Record)]
    public function try(TryReproRequest $request, SessionLine $sessionLine): JsonResponse
    {
        $this->save->try($sessionLine, $request->person(), $request->boolean('shown'));

        return $this->answer($sessionLine, 201);
    }

    #[Post('/session-lines/{sessionLine}/repro/cases', 'Make a case of it', ReproDetail::class, StampRequest::class, 201)]
    #[Needs(Permission::WriteCases)]
    public function makeCase(StampRequest $request, SessionLine $sessionLine): JsonResponse
    {
        $this->save->makeCase($sessionLine, $request->person());

        return $this->answer($sessionLine, 201);
    }

    private function answer(SessionLine $line, int $status = 200): JsonResponse
    {
        return new JsonResponse($this->read->ofLine($line->id) ?? throw new \LogicException('What was saved is gone.'), $status);
    }
}
