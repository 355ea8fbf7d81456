require "date"
require "time"
require_relative "core/errors"

# The rules of the job: values in, values out; no clock, no database, no interface.
module Core
end
