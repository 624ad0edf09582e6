<?php

declare(strict_types=1);

namespace LucidStep\App\Support\OpenApi;

/**
 * What every writing operation of the API is described by; the method is that of the attribute that uses it.
 */
trait DescribesWrite
{
    /**
     * @param  string  $path    below /api/v1
     * @param  class-string|null  $returns the resource of the answer
     * @param  class-string|null  $body    the request
     * @param  int  $status  of a success
     * @param  bool  $file    whether a file comes with it
     * @param  bool  $list    whether the answer is a list
     */
    public function __construct(
        string $path,
        string $summary,
        ?string $returns = null,
        ?string $body = null,
        int $status = 200,
        bool $file = false,
        bool $list = false,
    ) {
        parent::__construct(
            path: $path,
            summary: $summary,
            operationId: Operation::id($this->method, $path),
            parameters: Operation::parameters($path, [], true),
            requestBody: Operation::body($body, $file),
            responses: Operation::responses($returns, $list, $status),
        );
    }
}
