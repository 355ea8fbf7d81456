require_relative "../web_helper"

# Minutes typed at the pace of a quick hand, on a line that is slow or gone, by two people and in two tabs.
RSpec.describe "Writing the minutes" do
  let(:marit) { person("Marit Hauge") }
  let(:ines) { person("Ines Torvald") }
  let(:network) { page.driver.browser.network }
  let(:week) { series(marit, {required: ines}, chair_id: ines, start: "#{today + 3}T09:30") }
  let!(:meeting) { meeting_ids(week).first }
  let!(:safety) { topic(meeting, marit, "Safety round") }
  let!(:boats) { topic(meeting, marit, "Boats and crew") }

  before { state(meeting, marit, "in_session") }

  def open_sheet(name)
    sign_in_as(name)
    visit "/meetings/#{meeting}"
    expect(page).to have_css ".entry textarea:focus"
    expect(page).to have_content "all saved"
  end

  # Key by key, 60 to 110 ms apart, Enter at once: the pace is what is tested here.
  def type_by_hand(lines, pace: 0.06..0.11)
    keyboard = page.driver.browser.keyboard
    lines.each do |line|
      line.each_char { |key| keyboard.type(key) && sleep(rand(pace)) }
      keyboard.type(:enter)
    end
  end

  def kept(topic_id = safety) = Records::Line.standing.where(topic_id: topic_id).in_order.pluck(:text)

  # Without a click before, as `type` does.
  def press(*keys) = keys.each { |key| page.driver.browser.keyboard.type(key) }

  # Waits until they are; says what is kept instead.
  def expect_kept(*texts, topic_id: safety)
    within_s(15) { kept(topic_id) == texts }
    expect(kept(topic_id)).to eq texts
  end

  def stands(text, topic_id)
    id = Records::Key.make
    UseCases::Minutes.new(by: marit).add(id: id, meeting_id: meeting, text: text, kind: "note", topic_id: topic_id)
    id
  end

  def shown = all(".topic:nth-of-type(1) .line .words").map(&:text)

  def on_line(text, *keys)
    page.execute_script("arguments[0].focus()", find(:button, "Edit the line: #{text}", visible: :all))
    press(*keys)
  end

  it "keeps 60 lines in order, each as it was typed, on a fast line, a slow one, and one that goes" do
    open_sheet("Marit Hauge")
    lines = Array.new(60) { |n| "Buoy #{n}" }
    type_by_hand(lines[0, 20])
    network.emulate_network_conditions(latency: 300)
    type_by_hand(lines[20, 15])
    network.emulate_network_conditions(latency: 1_500)
    type_by_hand(lines[35, 10])
    network.offline_mode
    type_by_hand(lines[45, 15])
    expect(shown).to eq lines
    expect(page).to have_content(/\d+ unsent/)
    network.emulate_network_conditions
    expect(page).to have_content "all saved", wait: 60
    expect([kept, shown]).to eq [lines, lines]
  end

  it "keeps what is typed in two tabs at once without a connection" do
    open_sheet("Marit Hauge")
    other = open_new_window
    within_window(other) do
      visit "/meetings/#{meeting}"
      click_button "Boats and crew"
      expect(page).to have_field "Next line under Boats and crew", focused: true
    end
    3.times do |n|
      network.offline_mode
      find(".entry textarea").click
      type_by_hand(["Here #{n}", "Here too #{n}"], pace: 0.0..0.02)
      within_window(other) do
        page.driver.browser.network.offline_mode
        find(".entry textarea").click
        type_by_hand(["There #{n}", "There too #{n}"], pace: 0.0..0.02)
      end
    end
    [page.current_window, other].each do |one|
      within_window(one) { page.driver.browser.network.emulate_network_conditions }
    end
    expect(page).to have_content "all saved", wait: 30
    here = (0..2).flat_map { |n| ["Here #{n}", "Here too #{n}"] }
    there = (0..2).flat_map { |n| ["There #{n}", "There too #{n}"] }
    expect(page).to have_css(".topic:nth-of-type(2) .line", count: 6)
    expect([kept, kept(boats)]).to eq [here, there]
    other.close
  end

  it "takes what two people write, wherever the clock is moved meanwhile" do
    open_sheet("Marit Hauge")
    type("Half a sen")
    using_session(:ines) do
      open_sheet("Ines Torvald")
      click_button "Discuss now: Boats and crew"
      expect(page).to have_field "Next line under Boats and crew", focused: true
      type_by_hand(["Two crews short"], pace: 0.0..0.02)
    end
    expect(page).to have_content "Being discussed: Boats and crew"
    type_by_hand(["tence"], pace: 0.0..0.02)
    expect(page).to have_css ".topic:nth-of-type(2) .line", text: "Two crews short"
    expect_kept "Half a sentence"
    click_button "Write there"
    type_by_hand(["One more"], pace: 0.0..0.02)
    expect(page).to have_css ".topic:nth-of-type(2) .line", text: "One more"
    expect_kept "Two crews short", "One more", topic_id: boats
  end

  it "shows how a line was read on the line, to be put right by keys, and takes everything back and forth" do
    open_sheet("Marit Hauge")
    type_by_hand(["Ines to order shackles by Friday", "Quiet week"], pace: 0.0..0.01)
    expect(page).to have_css ".line.action", text: /Order shackles\s+Ines Torvald\s+due Fri/
    on_line("Order shackles", "n")
    expect(page).to have_css ".line.note", text: "Ines to order shackles by Friday"
    on_line("Ines to order shackles by Friday", "a")
    expect(page).to have_css ".line.action", text: /Order shackles\s+Ines Torvald\s+due Fri/
    on_line("Quiet week", "d")
    expect(page).to have_css ".line.decision", text: "Quiet week"
    on_line("Quiet week", [:alt, :up])
    expect(page).to have_css ".line:first-child", text: "Quiet week"
    on_line("Order shackles", [:alt, :right])
    expect(page).to have_css ".line.indented", text: "Order shackles"
    on_line("Quiet week", :delete)
    expect(page).to have_no_css ".line", text: "Quiet week"
    find(".entry textarea").click
    press([:control, "z"])
    expect(page).to have_css ".line.decision:first-child", text: "Quiet week"
    3.times { click_button "Undo" }
    expect(page).to have_css ".line.note:last-child", text: "Quiet week"
    expect(page).to have_no_css ".line.indented"
    3.times { click_button "Redo" }
    expect(page).to have_css ".line.indented", text: "Order shackles"
    expect_kept "Quiet week", "Order shackles"
    expect(Records::ActionItem.pluck(:text, :state)).to eq [["Order shackles", "open"]]
  end

  it "makes one action each of what several own, and takes that back" do
    open_sheet("Marit Hauge")
    type("Marit and Ines to read the plan")
    type(:enter)
    expect(page).to have_css ".line.action", text: /Read the plan\s+\w+ \w+ and \w+/
    click_button "One each: Read the plan"
    expect(page).to have_css ".line.action", text: "Read the plan", count: 2
    expect_kept "Read the plan", "Read the plan"
    click_button "Undo"
    expect(page).to have_css ".line.action", text: "Read the plan", count: 1
  end

  it "splits and joins lines, makes several of what is pasted, and lets a line have rows" do
    open_sheet("Marit Hauge")
    type("First row")
    type([:shift, :enter])
    type_by_hand(["second row"], pace: 0.0..0.01)
    expect_kept "First row\nsecond row"
    page.execute_script(<<~JS)
      const data = new DataTransfer()
      data.setData('text/plain', 'Wind north\\n\\nSea calm\\nRain la')
      const box = document.querySelector('.entry textarea')
      box.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
    JS
    type_by_hand(["ter"], pace: 0.0..0.01)
    expect_kept "First row\nsecond row", "Wind north", "Sea calm", "Rain later"
    type([:control, "z"]) # the last line
    expect_kept "First row\nsecond row", "Wind north", "Sea calm"
    type([:control, "z"]) # both that were pasted
    expect_kept "First row\nsecond row"
    2.times { type([:control, :shift, "z"]) }
    expect_kept "First row\nsecond row", "Wind north", "Sea calm", "Rain later"
    on_line("Wind north", :enter)
    press(:home, *[:right] * 4, [:control, :enter])
    expect_kept "First row\nsecond row", "Wind", "north", "Sea calm", "Rain later"
    on_line("north", :enter)
    press(:home, :backspace)
    expect_kept "First row\nsecond row", "Wind north", "Sea calm", "Rain later"
  end

  it "shows both texts where two people changed one line, and keeps what is chosen" do
    ids = %w[One Two Three].map { |text| stands(text, safety) }
    open_sheet("Marit Hauge")
    %w[One Two Three].each_with_index do |text, i|
      find(".line", text: text).hover
      click_button "Edit the line: #{text}"
      UseCases::Minutes.new(by: ines).change(id: ids[i], version: 0, kind: "note", text: "#{text} of Ines")
      within(".line form") do
        fill_in "Line", with: "#{text} of Marit"
        click_button "Save"
      end
      within(find(".clash")) do
        expect(all("dd").map(&:text)).to eq ["#{text} of Ines", "#{text} of Marit"]
        click_button ["Keep theirs", "Keep mine", "Keep both"][i]
      end
      expect(page).to have_no_css ".clash"
    end
    expect_kept "One of Ines", "Two of Marit", "Three of Ines", "Three of Marit"
  end

  it "never takes a line from under the cursor" do
    id = stands("Tide tables", safety)
    open_sheet("Marit Hauge")
    find(".line", text: "Tide tables").hover
    click_button "Edit the line: Tide tables"
    UseCases::Minutes.new(by: ines).remove(id)
    expect(page).to have_content "Somebody removed this line meanwhile"
    within(".line form") do
      fill_in "Line", with: "Tide tables are out"
      click_button "Save"
    end
    expect_kept "Tide tables are out"
  end

  it "keeps what was written without a connection on a line that somebody removed meanwhile" do
    id = stands("Tide tables", safety)
    open_sheet("Marit Hauge")
    network.offline_mode
    find(".line", text: "Tide tables").hover
    click_button "Edit the line: Tide tables"
    within(".line form") do
      fill_in "Line", with: "Tide tables are out"
      click_button "Save"
    end
    UseCases::Minutes.new(by: ines).remove(id)
    network.emulate_network_conditions
    within(find(".clash", wait: 30)) do
      expect(page).to have_content "Somebody else has removed this line meanwhile."
      click_button "Keep mine"
    end
    expect_kept "Tide tables are out"
  end

  it "takes along what is half typed when the meeting is closed, and goes nowhere with something unsent" do
    open_sheet("Marit Hauge")
    type("Left half")
    click_button "Boats and crew"
    expect(page).to have_field "Next line under Boats and crew", focused: true
    type("typed")
    network.offline_mode
    click_button "Close the meeting"
    expect(page).to have_content "Not yet: 2 changes on this sheet could not be sent", wait: 20
    find(".me").click
    find(".v-list-item", text: "Sign out").click
    expect(page).to have_content "2 changes could not be sent yet"
    within(".v-dialog") { click_button "Cancel" }
    network.emulate_network_conditions
    expect(page).to have_content "all saved", wait: 30
    click_button "Close the meeting"
    expect(page).to have_content(/minutes · draft/i)
    expect([kept, kept(boats)]).to eq [["Left half"], ["typed"]]
  end

  it "moves a line with the mouse, and goes to a topic from the running order" do
    %w[One Two].each { |text| stands(text, safety) }
    stands("Three", boats)
    open_sheet("Marit Hauge")
    find(".line", text: "One").hover
    find(:button, "Drag the line: One", visible: :all).drag_to(find(".line .words", text: "Three"), html5: false)
    expect_kept "Three", "One", topic_id: boats
    click_button "2 Boats and crew"
    expect(page).to have_field "Next line under Boats and crew", focused: true
  end
end
