require_relative "../spec_helper"
LOADER.eager_load_dir(File.expand_path("../../lib/mailing", __dir__))

# Whatever reads text from outside takes time in proportion to it (decision 0037). Each reader is fed long runs of each
# kind of character and of what it looks for itself, twice as long the second time.
RSpec.describe "What reads text from outside" do
  signs = " \t\n\r()[]{}<>.,;:!?'\"`@#&%*+-=_/\\|~^$–→éß\u00a0\u2028aZ7".chars << "e\u0301"
  people = ["Ines Torvald", "Wen Halloran", "Lars Ekeli", "Lars Moen"]
    .map { |name| Core::Sheet::LineReader::Person.new(id: name, name: name) }
  today = Date.new(2026, 11, 30)
  line = ->(text) do
    Core::Sheet::LineReader.new(people: people, today: today, called: {"the chair" => "c"}).read(text)
  end
  date = Core::Sheet::DateReader.new(today: today, holidays: [[today + 30, "boxing day"]])
  mail = ->(text) do
    Mailing::Incoming.new("From: x@y.example\r\n#{text}\r\n\r\nwords", checked_by: ["mx.example"]).then do |one|
      [one.from, one.sender_check, one.automatic?, one.words, one.calendar, one.report]
    end
  rescue Core::Invalid
    nil
  end
  refused = ->(reader) do
    ->(text) do
      reader.call(text)
    rescue Core::Error
      nil
    end
  end

  # reader => [the reader, what it looks for itself, what stands before and behind]
  readers = {
    "a line" => [
      line,
      ["Ines, ", "Ines and ", "@Wen ", "to ", "by Friday ", " owner: ", ". Owner: Ines. Due: x", " – ", " (a", "(by ",
        "the motion ", "carried ", "asked ", "next week ", "the 1 ", "12/", "and ", "The chair, "],
      ["", "Ines to ", "Ask Lars ", "Decided: ", "Order it "]
    ],
    "a line’s end" => [
      line, ["(", " (", ") ", ", ", "by ", "– Ines "], ["Ines to order "], [" by Friday", ")", " – Ines"]
    ],
    "a date" => [
      ->(text) { [date.take(text), date.alone(text)] }, ["by ", "the ", "1", "week ", "12 may "], ["", "by "]
    ],
    "dates that are pasted" => [
      # No more of a line is read than this; it ends with a whole word, so that it is read to its end.
      ->(text) do
        line = text[0, [text.size / 10, 1_000].min]
        12.times { Core::Asking::DateList.read(line[/\A.* /m] || line, today: today) }
      end,
      [
        "Mon ", "Mon, ", " and ", "and\t", "7 Dec ", "14:00 ", "14:00-", "and", "1, ", "7 and ", "1. 9 and ",
        "Mon, Tue 7 ", "7 Dec and 7 and ", "Dec 7 and 8 and ", "7/8 Dec, "
      ],
      ["", "Mon 7 Dec "]
    ],
    "a table" => [
      ->(text) { Core::Table.read("who,what\n#{text}", columns: {who: %w[who]}, needed: [:who]) },
      ["\"a\"", "\",\"", ",\n", "a,\"\n", ";\n"], ["", "\""]
    ],
    "names in a cell" => [Core::Table.method(:names), [" ; ", ", ", "a & ", "/"]],
    "a vCard" => [
      ->(text) { Core::ICalendar::VCard.read("BEGIN:VCARD\r\n#{text}\r\nEND:VCARD\r\n") },
      ["N:", "N:;", "\\;", ";A=", ";A=\"", ";A=\"\",", "\r\n ", "EMAIL:x\r\n", "BEGIN:VCARD\r\n", "FN;X=a,b,"],
      ["", "FN:", "N:", "EMAIL"]
    ],
    "a calendar" => [
      ->(text) { Core::ICalendar::Reader.read("BEGIN:VCALENDAR\r\n#{text}\r\nEND:VCALENDAR\r\n") },
      [";A=", ";A=\"", ";A=\"\",", ";A=,", "\r\n ", "DTSTART:", "BEGIN:VEVENT\r\n", "END:VEVENT\r\n"], ["", "X", "X:"]
    ],
    "a mail" => [
      mail, ["a@b, ", "<a@b>, ", "(", "=?", "=?UTF-8?Q?a?=", ";x=", "; spf=pass", "\r\n ", "\"", "a:\r\n", "boundary="],
      ["From: ", "Subject: ", "Authentication-Results: mx.example", "Content-Type: text/plain", "Precedence: ", "To: "]
    ],
    "a delivery report" => [
      ->(text) { Mailing::DeliveryReport.new("a@b", "Reporting-MTA: x\n\nAction: failed\n#{text}") },
      ["\n\n", "\n \n", "a:b\n", "\n ", "Final-Recipient: rfc822; x\n"], ["", "Diagnostic-Code: "]
    ],
    "an address" => [Core::MailAddress.method(:read), ["a.", "a@", "@a.", "a-", ".a"], ["", "a@", "a@b."]],
    "a rule" => [
      Core::Recurrence::Rule.method(:parse), ["BYDAY=", "MO,", ";", "FREQ=", "1,"], ["", "FREQ=WEEKLY;BYDAY="]
    ],
    "what is searched" => [
      ->(text) { [Core::SearchWords.query(Core::SearchWords.words(text)), Core::SearchWords.found(text, %w[ab])] },
      ["ab ", "a ", "ab-", "é "]
    ],
    "a call’s address" => [
      ->(text) do
        Core::Invitation::Call.read(url: text, passcode: nil, dial_in: text, pointers: {url: "/", dial_in: "/"})
      end,
      ["https://", "x", "tel:"], ["", "https://", "tel:"]
    ],
    "a wording" => [
      ->(text) { Core::Invitation::Wording.fill(text, "title" => "", "next" => "x") },
      ["{title}", "{", "{ ", ". ", ".  ", "! {next}", "\n\n\n", " \n"]
    ],
    "a telephone number" => [Core::PhoneNumber.method(:read!), ["00", "+4", "( "], ["", "+"]],
    "days among words" => [->(text) { Core::DayWords.take(text.split) }, ["16 nov ", "nov ", "1/1 "]],
    "whom visitors may be" => [->(text) { Core::Asking::Visitors.read([text], "/x") }, ["a.", "a-", "@"]]
  }

  def seconds(reader, text)
    from = Process.clock_gettime(Process::CLOCK_THREAD_CPUTIME_ID)
    reader.call(text)
    Process.clock_gettime(Process::CLOCK_THREAD_CPUTIME_ID) - from
  end

  # The shortest of three, without the collector, whose rounds cost what else is in memory.
  def shortest(reader, text)
    GC.start
    GC.disable
    Array.new(3) { seconds(reader, text) }.min
  ensure
    GC.enable
  end

  # Four times as long: in proportion is four times the time, by the square sixteen times; and what the clock does not
  # tell apart is let be.
  def in_proportion?(reader, before, token, behind)
    text = ->(times) { "#{before}#{token * times}#{behind}" }
    times = 2_500 / token.size
    return true if seconds(reader, text[4 * times]) < 0.05

    long = shortest(reader, text[4 * times])
    long < 2 && long < 9 * shortest(reader, text[times])
  end

  readers.each do |name, (reader, tokens, befores, behinds)|
    it "reads #{name} in proportion" do
      reader = refused[reader]
      cases = (befores || [""]).product(signs + tokens, behinds || [""])
      expect(cases.reject { |before, token, behind| in_proportion?(reader, before, token, behind) }).to be_empty
    end
  end
end
