require "nokogiri"

# Every kind of mail there is, made of awkward values: long words without a break, addresses of 270 letters, everything
# that may be there. Letters are found by asking the modules that hold them, so that none is forgotten.
module EveryMail
  module_function

  LONG = "Bojenverankerungsinspektionsprotokollbesprechung"
  URL = "https://calls.example/#{"a1b2c3" * 42}"
  AT = "Wednesday 30 September 2026, 09:30 Halifax time"
  CALL = Core::Invitation::Call.typed(url: URL, passcode: "4711", dial_in: "+47 55 00 00 00, PIN 123456789")
  SAMPLES = {
    title: "#{LONG} and more", keeper: "Marit Hauge", at: AT, url: URL, location: "#{LONG}, second floor", call: CALL,
    whom: "Wen Halloran", on: true, again: false, name: "Benedita Falcão", offered: AT, now_at: AT, stays_at: AT,
    word: LONG,
    topic: LONG, answer: "take", limit: 12, place: LONG, items: [LONG, "chairs"], off: false, from: AT,
    to: "Lars Ekeli", late_min: 10, length_min: 45,
    hosts: ["Marit Hauge", LONG], after: LONG, agreed: true, until_at: AT,
    times: [AT, AT], words: LONG, moves: [LONG, AT], said: ["#{AT}: suits"], comment: LONG, answered: ["Wen", LONG],
    silent: [LONG], lines: [AT], over: true, why: LONG, part: "keeper", by: "Marit Hauge", was: AT, with: ["Ines"],
    answers: [{"question" => LONG, "answer" => URL}], doubts: [LONG]
  }.freeze
  HELPERS = %i[note bullets deadline listed answered_words text_reminder text_now host_words].freeze

  # @return [Hash{String => Hash}] what Mailing::Message#source takes, by the name of the kind
  def all = {**letters, **invitations, **others}

  def letters
    [Mailing::Letters, Mailing::BookingLetters, Mailing::PollLetters].flat_map { |of|
      (of.singleton_methods(false) - HELPERS).flat_map { |name| letter(of, name) }
    }.to_h
  end

  def letter(of, name)
    wanted = of.method(name).parameters
    return [] unless wanted.all? { |kind, _| %i[key keyreq].include?(kind) }

    kinds = {own_time: %i[request cancel], for_host: Mailing::BookingLetters::KINDS.keys}.fetch(name, [nil])
    kinds.map do |kind|
      given = wanted.to_h { |_, key| [key, (key == :kind) ? kind : SAMPLES.fetch(key)] }
      ["#{of.name.split("::").last}.#{[name, kind].compact.join(" ")}", of.public_send(name, **given)]
    end
  end

  def content
    Core::Invitation::Content.of(
      "title" => SAMPLES[:title], "purpose" => "#{LONG} #{URL}", "location" => SAMPLES[:location],
      "call" => CALL.to_plain,
      "keeper" => "Marit Hauge", "start" => "2026-12-07T09:30:00", "time_zone" => "America/Argentina/Buenos_Aires",
      "length_min" => 45, "rule" => "FREQ=WEEKLY;BYDAY=MO;COUNT=9", "dates" => [],
      "off" => [{"on" => "2026-12-14T09:30:00", "reason" => LONG}],
      "moved" => [{"from" => "2026-12-21T09:30:00", "to" => "2026-12-22T10:00:00", "length_min" => 60}]
    )
  end

  def invitations
    usual = Core::Invitation::Options.new(
      pass_on: true, answers_asked: true, sign_up: false, sign_up_limit: nil, remind_min: 0
    )
    changes = [{label: "When", before: AT, after: "#{AT}, #{LONG}"}, {label: "Call", before: URL, after: URL}]
    Mailing::Invitation::SUBJECTS.keys.to_h do |kind|
      mail = Mailing::Invitation.new(
        kind: kind, content: content, note: LONG, keeper: "Marit Hauge", role: "required", first: AT, changes: changes,
        url: URL, answer_url: URL, options: usual, calendar: nil, from: Time.utc(2026, 12, 1), records: true,
        papers: [{name: "#{LONG}.pdf", attached: true}], lapsed: [Core::WallTime.parse("2026-12-21T09:30")],
        agenda: agenda
      )
      ["Invitation.#{kind}", mail.parts]
    end
  end

  def agenda
    {
      title: SAMPLES[:title], at: AT, location: LONG,
      topics: [{id: "1", number: "1", title: LONG, length_min: 10, presenter: "Wen", text: "#{LONG} #{URL}"}],
      left_over: [{text: LONG, owners: ["Wen Halloran"], due: "Friday 4 December 2026"}]
    }
  end

  def others
    row = {text: LONG, series: LONG, due_on: Date.new(2026, 12, 4), path: "/action/#{"a" * 200}"}
    action = Mailing::ActionMail.new(origin: "https://meetings.example", person: nil)
    {
      "ActionMail.due" => action.due(before: [row], after: [row]),
      "ActionMail.asking" => action.asking(title: LONG, at: AT, rows: [row]),
      "ActionMail.last_list" => action.last_list(title: LONG, rows: [row]),
      "AgendaMail" => Mailing::AgendaMail.new(agenda, keeper: "Marit", note: LONG).parts(URL),
      "Reminder.soon" => reminder("soon"), "Reminder.papers" => reminder("papers"),
      "LinksNote" => Mailing::LinksNote.parts(links: [[LONG, URL]]),
      "AddressNote" => Mailing::AddressNote.parts(by: "Marit Hauge"),
      **Mailing::SignInNote::WORDS.keys.to_h { |kind| ["SignInNote.#{kind}", sign_in(kind)] },
      "Digest" => Mailing::Digest.parts([[LONG, "#{LONG}:\n  #{URL}"], ["Minutes", LONG]])
    }
  end

  def reminder(kind)
    Mailing::Reminder.new(
      kind: kind, title: LONG, at: AT, location: LONG, call: CALL, papers: ["#{LONG}.pdf"], url: URL
    ).parts
  end

  def sign_in(kind)
    Mailing::SignInNote.parts(kind, until_at: Core::WallTime.parse("2026-12-07T09:30"), zone: Core::Zone["Europe/Oslo"],
      url: URL)
  end
end
