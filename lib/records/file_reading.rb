module Records
  # A file somebody has handed in, until it is read and they have seen what it holds. `outcome` and `settings` as JSON.
  class FileReading < Base
    attribute :settings, :json
    attribute :outcome, :json

    scope :to_read, ->(now) { where(state: "waiting").where("leased_until is null or leased_until < ?", now) }
  end
end
