require "active_record"
require_relative "settings"

ActiveSupport.to_time_preserves_timezone = :zone
ActiveRecord.default_timezone = :utc
ActiveRecord::Base.configurations = {Settings.env => Settings.database}
ActiveRecord::Base.establish_connection(Settings.env.to_sym)
