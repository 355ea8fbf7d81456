require "digest"

# Files as they come; each names its `source` (a clause of RFC 5545) and what confirmed it.
RSpec.describe Core::ICalendar::Reader do
  folder = File.expand_path("../reference/ics_import", __dir__)

  def events(bytes)
    described_class
      .read(bytes)
      .components
      .flat_map do |calendar|
        times = Core::ICalendar::Times.new(calendar, Core::Zone["Europe/Oslo"])
        calendar.inside("VEVENT").map { |component| Core::ICalendar::Event.read(component, times) }
      end
  end

  def start(event) =
    (event.start.form == :floating) ? event.start.wall.to_s : Time.at(event.start.instant_s).utc.iso8601

  JSON
    .parse(File.read("#{folder}/manifest.json"))
    .each do |vector|
      bytes = File.binread("#{folder}/#{vector["file"]}")
      if vector["result"] == "ok"
        it "reads #{vector["file"]}" do
          found = events(bytes)
          expect(found.size).to eq vector["events"]
          if vector["starts"]
            expect(found.map { |one| [one.title, start(one)] }).to eq vector["summaries"].zip(vector["starts"])
          else
            expect(Digest::SHA256.hexdigest(found.map { |one| start(one) }.join("\n"))).to eq vector["starts_sha256"]
          end
          if vector["violations"] && !vector["kind"].match?(/text/)
            expect(Core::FreeBusy::Calendar.new(bytes, zone: Core::Zone["Europe/Oslo"]).warnings).not_to be_empty
          end
        end
      else
        it "refuses #{vector["file"]}: #{vector["error"]}" do
          expect { Core::FreeBusy::Calendar.new(bytes, zone: Core::Zone["Europe/Oslo"]) }.to raise_error(
            Core::Invalid
          ) { |error| expect([error.code, error.message]).to match ["unreadable", /\S/] }
        end
      end
    end

  # RFC 6350: what we write reads back, names with commas and all.
  it "reads back the vCards it writes" do
    people = [
      {
        id: "01a20bb0-1ca6-7eca-8a79-3a564e6f6244", name: "Benedita Falcão; Ltd, \\ Sons",
        email: "b@skerrybuoy.example", time_zone: "Europe/Lisbon"
      },
      {
        id: "01a20bb0-1ca6-7eca-8a79-3a564e6f6245", name: "Wen", email: "w@skerrybuoy.example",
        time_zone: "America/Halifax"
      }
    ]
    expect(Core::ICalendar::VCard.read(Core::ICalendar::VCard.write(people)).map(&:to_h)).to eq(
      people.map { |person| {**person.except(:id), phone: nil, groups: []} }
    )
  end

  # RFC 6350 4: a comma within a value of a list is escaped; 6.4.1: a number may be a URI.
  it "reads the number and the categories of a vCard, commas within them and all" do
    card = "BEGIN:VCARD\r\nFN:Wen\r\nTEL;VALUE=uri:tel:+1-902-555-0101\r\n" \
      "CATEGORIES:Harbour crew,Boats\\, buoys,, Yard \r\nEND:VCARD\r\n"
    expect(Core::ICalendar::VCard.read(card).first).to have_attributes(
      phone: "+1-902-555-0101", groups: ["Harbour crew", "Boats, buoys", "Yard"]
    )
  end
end
