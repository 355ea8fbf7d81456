require_relative "../api_helper"

RSpec.describe Views::MovingIn do
  let!(:marit) { person("Marit Hauge") }
  let!(:ines) { person("Ines Torvald") }
  let(:monday) { today + 7 + (1 - (today + 7).wday) % 7 }

  before { sign_in(marit) }

  def stamp(day, time = "093000") = "#{day.strftime("%Y%m%d")}T#{time}"

  # As a calendar program writes a series begun last year: a date left out, one moved, one cancelled.
  def ical(extra: "")
    lines = [
      "BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Elsewhere//EN",
      "BEGIN:VEVENT", "UID:round@elsewhere.example", "DTSTAMP:20250101T000000Z", "SUMMARY:Harbour round",
      "DTSTART;TZID=Europe/Oslo:#{stamp(monday - 364)}", "DURATION:PT50M", "RRULE:FREQ=WEEKLY;BYDAY=MO",
      "EXDATE;TZID=Europe/Oslo:#{stamp(monday + 14)}", "LOCATION:Quay 2",
      "DESCRIPTION:All about the harbour. https://calls.elsewhere.example/r1",
      "ATTENDEE;CN=Ines:mailto:ines@skerrybuoy.example", "ATTENDEE;CN=Pat Bell:mailto:pat@harbour.example",
      "END:VEVENT",
      "BEGIN:VEVENT", "UID:round@elsewhere.example", "DTSTAMP:20250101T000000Z", "SUMMARY:Harbour round",
      "RECURRENCE-ID;TZID=Europe/Oslo:#{stamp(monday + 7)}", "DTSTART;TZID=Europe/Oslo:#{stamp(monday + 8, "110000")}",
      "DURATION:PT50M", "END:VEVENT",
      "BEGIN:VEVENT", "UID:round@elsewhere.example", "DTSTAMP:20250101T000000Z", "STATUS:CANCELLED",
      "RECURRENCE-ID;TZID=Europe/Oslo:#{stamp(monday + 21)}", "DTSTART;TZID=Europe/Oslo:#{stamp(monday + 21)}",
      "DURATION:PT50M", "END:VEVENT", extra, "END:VCALENDAR", ""
    ]
    lines.reject(&:empty?).join("\r\n")
  end

  def read(text) = hand_in("/series-drafts", {content: [text].pack("m0")})

  def wall(day, time = "09:30") = "#{day.iso8601}T#{time}"

  it "reads rule, zone, what is moved and called off, place, link, and who is known here" do
    draft = read(ical).dig("series", "series").first
    expect(draft).to include(
      "title" => "Harbour round", "rule" => "FREQ=WEEKLY;BYDAY=MO", "timeZone" => "Europe/Oslo", "lengthMin" => 50,
      "place" => "Quay 2", "url" => "https://calls.elsewhere.example/r1", "personIds" => [ines],
      "guests" => [{"name" => "Pat Bell", "email" => "pat@harbour.example"}],
      "moves" => [{"from" => wall(monday + 7), "to" => wall(monday + 8, "11:00")}],
      "calledOff" => [wall(monday + 14), wall(monday + 21)]
    )
    expect(Records::Series.count).to eq 0
  end

  it "becomes a series whose moved and called-off dates are as they were, and tells nobody" do
    draft = read(ical).dig("series", "series").first
    id = key
    call(:post, "/series", {
      id: id, title: draft["title"], members: [{personId: marit, role: "required"}, {personId: ines, role: "required"}],
      run: {localStart: draft["dates"].find { |one| one >= wall(monday) }, timeZone: "Europe/Oslo", lengthMin: 50,
            rule: draft["rule"], dates: []},
      moves: draft["moves"], calledOff: draft["calledOff"]
    })
    expect(status).to eq 201
    coming = Records::Meeting.where(series_id: id).order(:original_start).first(5)
    zone = Core::Zone["Europe/Oslo"]
    expect(coming.map { |one| [zone.wall(one.starts_at).to_s[0, 16], one.state] }).to eq [
      [wall(monday), "planned"], [wall(monday + 8, "11:00"), "planned"], [wall(monday + 14), "called_off"],
      [wall(monday + 21), "called_off"], [wall(monday + 28), "planned"]
    ]
    expect(Records::Mail.count).to eq 0
  end

  it "says what is wrong with a file" do
    ["", "no calendar", ical.gsub(/RRULE.*\r\n/, ""), ical.sub("FREQ=WEEKLY", "FREQ=SOMETIMES")].each do |text|
      expect(read(text)["errors"].map { |one| one["pointer"] }).to eq(["/content"]), text[0, 40]
    end
    call(:post, "/series-drafts", {content: "%%%"})
    expect(status).to eq 422
  end
end
