module Loading
  # What all private links share: each belongs to one person and one thing, is 160 bits that nobody can make up, is
  # another once the person has renewed theirs, and ends some time after what it is for (docs/security.md). `open` is
  # the only way in by one.
  module PrivateLink
    DAY_S = 86_400
    # Days a link is good for after what it is for.
    ENDS = {action: 30, booking: 30, pick: 7, preparation: 7, poll: 60}.freeze

    OPENED = {
      answer: ->(id, of, _) { AnswerLink.new(series_id: id, person_id: of["personId"], token: of["token"]) },
      action: ->(id, of, now) {
        ActionLink.new(action_id: id, person_id: of["personId"], token: of["token"], now: now)
      },
      pick: ->(id, of, now) { PickLink.new(id, of["personId"], of["token"], now: now) },
      preparation: ->(id, of, now) { Preparation.of_link(id, of["token"], now: now) },
      poll: ->(id, of, now) { PollLink.open(id, of["personId"], of["token"], now: now) },
      shared_poll: ->(id, of, now) { PollLink.open_shared(id, of["token"], now: now) },
      open_hours: ->(id, of, _) { OpenHoursLink.open(id, of["token"]) },
      booking: ->(id, of, now) { OpenHoursLink.open_booking(id, of["token"], now: now) },
      host: ->(id, of, _) { OpenHoursLink.open_host(id, of["token"]) }
    }.freeze

    module_function

    # @param kind [Symbol] of OPENED
    # @param params [Hash{String => String}] what stands in the path: id, token and, where it has one, personId
    # @return what the link opens
    # @raise [Core::NotFound] when it is not, or no more, worth anything
    def open(kind, params, now:) = OPENED.fetch(kind).call(params["id"], params, now)

    # @param serial [Integer, nil] how often the person has renewed their links; nil: looked up
    # @return [String] 40 hexadecimal digits
    def token(kind, *about, person_id:, serial: nil)
      serial ||= Records::Person.where(id: person_id).pick(:link_serial)
      Settings.seal("#{kind} link", [*about, person_id, serial].join(":"))
    end

    # @raise [Core::NotFound]
    def check(wanted, given) = OpenSSL.secure_compare(wanted, given.to_s) || raise(Core::NotFound)

    # @param over_at [Time, nil] when what it is for was over; nil: it is not yet
    # @raise [Core::NotFound]
    def check_end(kind, over_at, now)
      raise Core::NotFound if over_at && now > over_at + ENDS.fetch(kind) * DAY_S
    end
  end
end
