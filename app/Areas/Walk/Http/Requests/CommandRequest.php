<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Areas\Walk\Commands\Payload;
use LucidStep\App\Support\Http\ApiRequest;

/**
 * A request that records something in an attempt.
 */
abstract class CommandRequest extends ApiRequest
{
    /**
     * What came in, as a command reads it.
     *
     * @param  array<string, scalar|null>  $more what the address says
     */
    protected function payload(array $more = []): Payload
    {
        return new Payload([...(array) $this->validated(), ...$more]);
    }
}
