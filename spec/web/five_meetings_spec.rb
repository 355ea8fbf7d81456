require "csv"
require_relative "../web_helper"
require_relative "../support/readable"

# The whole journey over five meetings, by keys and at the pace of a quick hand, with a list of what was raised, done,
# dropped, handed over and is open kept beside it: what is agreed at one stands on the next, is found again, and is
# counted alike on every page and in every file. Eight people, two of each of two first names, and a guest.
RSpec.describe "Five meetings" do
  names = [
    "Ines Torvald", "Ines Moen", "Lars Ekeli", "Lars Moen", "Wen Halloran", "Sunniva Dahl", "Tomás Queirós"
  ]
  let(:marit) { person("Marit Hauge") }
  let(:people) { names.map { |name| person(name, email: "#{name.delete("^A-Za-z").downcase}@skerrybuoy.example") } }
  let!(:crane) { series(marit, {}, title: "Crane yard", start: "#{today + 2}T14:00", rule: "FREQ=WEEKLY;COUNT=2") }
  let!(:week) do
    series(
      marit, {required: people}, start: "#{today + 1}T09:30", rule: "FREQ=DAILY;COUNT=6", quorum: 4,
      guests: [{id: key, name: "Odd Dahl", email: "odd@port.example", role: "optional"}]
    )
  end

  def press(*keys) = keys.each { |key| page.driver.browser.keyboard.type(key) }

  # From a page's foot or a box one types in, back to where its keys are heard.
  def leave = page.execute_script("document.activeElement.blur()")

  def open_sheet(number)
    visit "/meetings/#{meeting_ids(week)[number]}"
    expect(page).to have_css ".deeds"
    leave
  end

  # Start, close and issue wait behind the same key; each is asked once more.
  def go_on
    leave
    press("m", :enter)
  end

  def confirm
    expect(page).to have_css ".v-dialog button[type=submit]:focus"
    press(:enter)
  end

  def start
    go_on
    expect(page).to have_content "Hold it now?"
    confirm
    expect(page).to have_content "IN SESSION"
    click_button "All others are here"
    expect(page).to have_content(/HERE · (\d) OF \1/)
  end

  def write(*lines)
    leave
    press("l")
    expect(page).to have_css ".entry textarea:focus"
    lines.each { |line| press(line, :enter) }
    expect(page).to have_content "all saved"
  end

  def raise_all(*lines)
    write(*lines.map(&:first))
    lines.each { |_, text| @list[text] = "open" }
  end

  # From the box to the first card, and card by card on: `d` done, `c` carried over, `x` dropped, `h` handed over.
  def review(*keys)
    leave
    press("o")
    keys.each do |key|
      expect(page).to have_css ".card:focus"
      text = find(".card:focus .text").text
      press(key)
      answer(key, text)
      @list[text] = {"d" => "done", "x" => "dropped", "h" => "handed over"}.fetch(key, @list[text])
    end
  end

  def answer(key, text)
    press(:enter) if key == "c" # without a word
    press("It has rained away", :enter) if key == "x"
    hand_over(text) if key == "h"
    said = {"d" => "done", "c" => "carried over", "x" => "dropped", "h" => "handed over"}.fetch(key)
    expect(page).to have_css ".card", text: /#{text}.*#{said}/m
  end

  def hand_over(text)
    select "Crane yard", from: "The series it goes to"
    click_button "Hand it over"
    expect(page).to have_css ".left li", text: "#{text} handed over to “Crane yard”"
  end

  def close_and_issue
    go_on
    expect(page).to have_content "DRAFT"
    go_on
    confirm
    expect(page).to have_content "ISSUED"
  end

  def counted = @list.values.tally

  def expect_alike
    expect(Records::ActionItem.where(series_id: week).group(:state).count.transform_keys { |state| state.tr("_", " ") })
      .to eq counted
    files = zip_of("/api/series/#{week}/archive.zip")
    rows = ["actions, open.csv", "actions, closed.csv"].flat_map { |name| CSV.parse(files[name]).drop(1) }
    expect(rows.to_h { |row| [row[0], row[4]] }).to eq @list
    visit "/actions?whose=all&seriesId=#{week}"
    expect(page).to have_css ".action", count: counted["open"]
    visit "/series/#{week}?show=strands"
    choose_from("Closed ones", "all of them")
    expect(page).to have_css ".names li", count: @list.size
  end

  def zip_of(path)
    {}.tap do |files|
      Zip::InputStream.open(StringIO.new(fetched(path))) do |zip|
        while (entry = zip.get_next_entry)
          files[entry.name] = entry.get_input_stream.read.force_encoding("UTF-8")
        end
      end
    end
  end

  it "carry what is open, close what is done, and count alike everywhere, without a mouse" do
    @list = {}
    sign_in_as("Marit Hauge")
    open_sheet(0)
    start
    raise_all(
      ["Ines T to order shackles by Friday", "Order shackles"], ["Lars Moen to ring the yard", "Ring the yard"],
      ["Wen to flag B-09", "Flag B-09"], ["Someone to paint the shed", "Paint the shed"]
    )
    write("Agreed: two boats")
    close_and_issue

    open_sheet(1)
    start
    review("d", "c", "x", "c")
    raise_all(["Sunniva to sign by Friday", "Sign"], ["Tomás to lift the sinkers", "Lift the sinkers"])
    close_and_issue

    open_sheet(2)
    start
    review("d", "c", "h", "c")
    raise_all(["Ines M and Wen to write it up", "Write it up"])
    write("Decided: the crane waits")
    close_and_issue

    open_sheet(3)
    expect(find(".left")).to have_content "Paint the shed carried 2 times"
    start
    review("c", "c", "c")
    close_and_issue

    open_sheet(4)
    start
    review("x", "d", "c")
    close_and_issue

    expect(counted.values.sum).to eq 7
    expect(Records::MinutesVersion.count).to eq 5
    expect(Views::Decisions.new(by: marit).list(week)[:decisions].map { |one| one[:text] })
      .to eq ["The crane waits", "Two boats"]
    expect_alike
  end
end
