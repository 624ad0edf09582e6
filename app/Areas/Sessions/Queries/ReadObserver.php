<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Queries;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Sessions\Actions\TakeObservations;
use LucidStep\App\Areas\Sessions\Data\ObserverDetail;
use LucidStep\App\Areas\Setup\Queries\ObservedOrigins;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Models\User;

/**
 * Reads what a session listens to. The code is shown to whoever runs it.
 */
final class ReadObserver
{
    public function __invoke(TestSession $session, User $reader): ObserverDetail
    {
        $of = $session->observer;
        $came = $of['at'] ?? null;

        return new ObserverDetail(
            $session->tester_id === $reader->id ? $session->observer_code : null,
            null !== $session->observer_hash,
            url('/observe.js'),
            ObservedOrigins::of(Project::query()->findOrFail($session->project_id)),
            $of['page'] ?? '',
            null === $came ? null : Carbon::createFromTimestampMsUTC($came)->toIso8601ZuluString('millisecond'),
            TakeObservations::boundsOf($session)->leftOut,
            $of['refused'] ?? '',
            (int) DB::table('session_lines')->where('session_id', $session->id)->max('number'),
        );
    }
}
