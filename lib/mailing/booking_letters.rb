module Mailing
  # The letters about booked times, each with its subject and words.
  module BookingLetters
    CHANGE = "Move it or give it back"

    module_function

    # To the visitor, whose address has to be proved.
    def proof(title:, at:, url:)
      said = "Please confirm that you want “#{title}” on #{at}. The time is held for you for 15 minutes."
      note("Please confirm", title, said, ["Confirm it", url])
    end

    # To the visitor, with the calendar object.
    # @param hosts [Array<String>] names; location [String, nil]; call [Core::Invitation::Call, nil]
    # @param after [String, nil] what the host says afterwards
    def booked(title:, hosts:, at:, location:, call:, url:, after: nil)
      said = "You have booked “#{title}” with #{Core::Words.list(hosts)}.\n\n#{[at, location].compact.join("\n")}"
      note("Booked", title, [said, after].compact.join("\n\n"), [CHANGE, url], join: Join.new(call))
    end

    KINDS = {
      booked: ["Booked", "has booked"], moved: ["Moved", "has moved"], given_back: ["Given back", "has given back"]
    }.freeze

    # To a host.
    # @param kind [Symbol] booked, moved or given_back
    # @param answers [Array<Hash>] question and answer; doubts [Array<String>] what is not sure about the time
    def for_host(kind:, title:, name:, at:, answers:, doubts:, url:)
      subject, verb = KINDS.fetch(kind)
      preposition = (kind == :moved) ? "to" : "on"
      answered = answers.map { |one| "#{one["question"]} #{(one["answer"] == true) ? "Yes" : one["answer"]}" }
      parts = ["#{name} #{verb} “#{title}” #{preposition} #{at}."]
      parts << answered.join("\n") if answered.any? && kind == :booked
      parts << doubts.join("\n") if doubts.any?
      note("#{subject} by #{name}", title, parts.join("\n\n"), ["The meeting", url])
    end

    # To a colleague who is to be a host.
    def ask_host(title:, keeper:, url:)
      said = "#{keeper} asks you to be a host of the open hours “#{title}”. Once you agree, others can book times " \
        "with you there when you are free. Until then nothing of yours is shown, and which of your calendars count " \
        "is yours to choose."
      note("Asked to be a host", title, said, ["Agree, or say no", url])
    end

    # To whoever keeps them.
    # @param agreed [Boolean] whether they were a host before
    def host_left(title:, name:, agreed:, url:)
      said = agreed ? "#{name} is no longer a host of “#{title}”. What is booked stays." :
        "#{name} does not want to be a host of “#{title}”."
      note("#{name} #{agreed ? "has left" : "says no"}", title, said, ["The open hours", url])
    end

    # To who picks a time of their own within a meeting.
    # @param again [Boolean] whether the one they had is gone; at [String] the day
    def pick(title:, keeper:, at:, length_min:, again:, url:)
      said = again ? "The times have changed, and yours is not among them any more. " : ""
      note(again ? "Please pick another time" : "Please pick a time", title,
        "#{said}#{keeper} asks you to pick a time of #{length_min} minutes for “#{title}” on #{at}.",
        ["Pick a time", url])
    end

    def note(subject, title, words, link = nil, **more)
      Note.parts("#{subject}: #{title}", title, words, link, **more)
    end
  end
end
